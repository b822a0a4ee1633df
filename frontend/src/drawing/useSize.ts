import { useLayoutEffect, useState } from "react";
import { flushSync } from "react-dom";

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
    // Drawn before it is shown: else what stands in it is seen at its old size for a moment.
    const observer = new ResizeObserver(() => flushSync(measure));
    observer.observe(element);
    measure();
    return () => observer.disconnect();
  }, [element]);
  return [setElement, size] as const;
}
