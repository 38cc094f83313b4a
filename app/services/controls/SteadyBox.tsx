import { useEffect, useLayoutEffect, useRef, type ReactNode } from 'react'

/**
 * While something is looked for, the place of what stood here before is kept free: what is below
 * does not come up under the pointer, and go again.
 */
export function SteadyBox({ waiting, children }: { waiting: boolean; children: ReactNode }) {
  const box = useRef<HTMLDivElement>(null)
  /** In px, when nothing was waited for last. */
  const height = useRef(0)
  useEffect(() => {
    if (waiting) return
    const watch = new ResizeObserver(([entry]) => {
      height.current = entry!.contentRect.height
    })
    watch.observe(box.current!)
    return () => watch.disconnect()
  }, [waiting])
  useLayoutEffect(() => {
    const here = box.current
    if (!here || !waiting) return
    here.style.minHeight = `${height.current}px`
    return () => {
      here.style.minHeight = ''
    }
  }, [waiting])
  return <div ref={box}>{children}</div>
}
