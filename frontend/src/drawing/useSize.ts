import { useLayoutEffect, useState } from "react";

/** Size of an element in CSS pixels, followed as it changes, and as another element takes its place. */
export function useSize<T extends Element>() {
  const [element, setElement] = useState<T | null>(null);
  const [size, setSize] = useState({ width: 0, height: 0 });
  useLayoutEffect(() => {
    if (element === null) return;
    const measure = () => {
      const box = element.getBoundingClientRect();
      setSize((last) =>
        last.width === box.width && last.height === box.height
          ? last
          : { width: box.width, height: box.height },
      );
    };
    const observer = new ResizeObserver(measure);
    observer.observe(element);
    measure();
    return () => observer.disconnect();
  }, [element]);
  return [setElement, size] as const;
}
