import { useRef, type PointerEvent } from "react";

type Point = { x: number; y: number };
type Drag<T> = {
  /** Where the thing was taken hold of, px of the surface; what it gives is kept while it is held,
   * null lets the pointer go by. */
  onStart: (at: Point, event: PointerEvent) => T | null;
  onMove?: (at: Point, held: T) => void;
  onEnd?: (at: Point, held: T) => void;
  onCancel?: () => void;
};

/**
 * Drags over a surface (an element, or the drawing that it is a part of): the pointer is held from
 * the first touch to the last, wherever it goes. Give what it returns to the element.
 */
export function useDrag<T>({ onStart, onMove, onEnd, onCancel }: Drag<T>) {
  const held = useRef<{ thing: T } | null>(null);
  const at = (event: PointerEvent<Element>): Point => {
    const target = event.currentTarget;
    const surface = target instanceof SVGElement ? (target.ownerSVGElement ?? target) : target;
    const corner = surface.getBoundingClientRect();
    return { x: event.clientX - corner.left, y: event.clientY - corner.top };
  };
  return {
    onPointerDown: (event: PointerEvent<Element>) => {
      if (event.button !== 0) return;
      const thing = onStart(at(event), event);
      if (thing === null) return;
      held.current = { thing };
      event.currentTarget.setPointerCapture(event.pointerId);
    },
    onPointerMove: (event: PointerEvent<Element>) => {
      if (held.current) onMove?.(at(event), held.current.thing);
    },
    onPointerUp: (event: PointerEvent<Element>) => {
      if (held.current) onEnd?.(at(event), held.current.thing);
      held.current = null;
    },
    onPointerCancel: () => {
      if (held.current) onCancel?.();
      held.current = null;
    },
  };
}
