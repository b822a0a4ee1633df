import { useLayoutEffect, useRef, useState } from "react";

/** Size of an element in CSS pixels, followed as it changes. */
export function useSize<T extends Element>() {
  const ref = useRef<T>(null);
  const [size, setSize] = useState({ width: 0, height: 0 });
  useLayoutEffect(() => {
    const element = ref.current;
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
  }, []);
  return [ref, size] as const;
}
