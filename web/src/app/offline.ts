/** Whether this browser keeps the page, so that it loads without the server: only on this machine or by HTTPS. */
export const keepsPage = () => window.isSecureContext && 'serviceWorker' in navigator

export function keepPage() {
  if (!import.meta.env.PROD || !keepsPage()) return
  // a browser that does not want to keeps nothing, and all else goes on
  navigator.serviceWorker.register('/worker.js').catch(() => {})
}
