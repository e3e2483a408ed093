"""A page of plain sentences, for when the application itself cannot be shown."""

from collections.abc import Sequence

from django.http import HttpResponse
from django.utils.html import escape

_PAGE = """<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<meta name="color-scheme" content="light dark">
<title>Ravska: {title}</title>
<style>
  :root {{ --ground: #e8ecf2; --plate: #fbfcfe; --ink: #14181f; --rim: #2746b8; --deep: #15255a; --tint: #e3e9f6 }}
  @media (prefers-color-scheme: dark) {{
    :root {{ --ground: #141618; --plate: #1e2125; --ink: #eef1f6; --rim: #9fb4ff; --deep: #0e1428; --tint: #2a2f38 }}
  }}
  * {{ box-sizing: border-box }}
  body {{
    margin: 0; min-height: 100vh; background: var(--ground); color: var(--ink);
    font: 17px/1.5 system-ui, sans-serif; display: grid; grid-template-rows: auto 1fr;
  }}
  header {{
    display: flex; align-items: center; gap: 12px; padding: 10px 24px; background: var(--deep); color: #fff;
    font-weight: 700; font-size: 20px;
  }}
  header img {{ width: 34px; height: 34px }}
  main {{
    place-self: start center; margin: clamp(16px, 9vh, 90px) 16px; max-width: 640px; width: calc(100% - 32px);
    padding: 26px 32px 28px; background: var(--plate); border-radius: 18px; box-shadow: 0 0 0 2px var(--rim);
  }}
  h1 {{ margin: 0 0 12px; font-size: 27px; line-height: 1.2; text-wrap: balance }}
  p {{ margin: 0 0 10px; overflow-wrap: anywhere }}
  p:last-child {{ margin: 0 }}
  code {{ background: var(--tint); border-radius: 6px; padding: 1px 6px; font-size: 15px; box-decoration-break: clone }}
</style>
</head>
<body>
<header><img src="/mark.svg" alt="">Ravska</header>
<main><h1>{title}</h1>{sentences}</main>
</body>
</html>
"""


def plain_page(title: str, sentences: Sequence[str], status: int) -> HttpResponse:
    """Return a page of sentences; what stands between backticks in one is shown as a command."""
    paragraphs = []
    for sentence in sentences:
        parts = escape(sentence).split("`")
        said = "".join(f"<code>{part}</code>" if at % 2 else part for at, part in enumerate(parts))
        paragraphs.append(f"<p>{said}</p>")
    page = _PAGE.format(title=escape(title), sentences="".join(paragraphs))
    answer = HttpResponse(page, status=status, content_type="text/html; charset=utf-8")
    answer.headers["Cache-Control"] = "no-store"
    return answer
