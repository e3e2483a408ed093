import { ref } from 'vue'

interface Notice {
  text: string
  undo?: () => void | Promise<void>
}

/** What the app says in passing, with an undo where there is one. Shown by NoticeBar. */
export const notice = ref<Notice | null>(null)

export function say(text: string, undo?: Notice['undo']) {
  notice.value = { text, undo }
}
