import os
from typing import Any

from devices.simulated_scale import arguments, start
from django.conf import settings
from django.core.management.base import BaseCommand, CommandError, CommandParser
from ravska_core.working import BadInput


class Command(BaseCommand):
    help = "Run a simulated kitchen scale beside Ravska; docs/scale.md says how a real one connects."
    requires_system_checks = ()

    def add_arguments(self, parser: CommandParser) -> None:
        arguments(parser)
        parser.set_defaults(token=os.environ.get("RAVSKA_DEVICE_TOKEN", settings.DEVICE_TOKEN))

    def handle(self, *args: object, **options: Any) -> None:
        self.stdout.write(f"The scale “{options['name']}” streams to {options['server']} (Ctrl+C ends it)")
        try:
            start(options)
        except BadInput as refusal:
            raise CommandError(refusal.sentence) from None
        except KeyboardInterrupt:
            pass
