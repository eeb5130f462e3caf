interface Following {
  readonly onMove: (event: PointerEvent) => void;
  readonly onDrop: (event: PointerEvent) => void;
  /** Esc was pressed, or the pointer was taken away (a scroll, a call): what was shown is put back. */
  readonly onCancel?: () => void;
}

/** Follows one pointer from its press until it is let go, wherever it goes. Nothing is done when it is called off. */
export function followPointer(pressed: { readonly pointerId: number }, ears: Following): void {
  const own = (event: PointerEvent) => event.pointerId === pressed.pointerId;
  const move = (event: PointerEvent) => own(event) && ears.onMove(event);
  const end = () => {
    window.removeEventListener('pointermove', move);
    window.removeEventListener('pointerup', up);
    window.removeEventListener('pointercancel', lost);
    window.removeEventListener('keydown', key, true);
  };
  const up = (event: PointerEvent) => {
    if (!own(event)) return;
    end();
    ears.onDrop(event);
  };
  const cancel = () => {
    end();
    ears.onCancel?.();
  };
  const lost = (event: PointerEvent) => own(event) && cancel();
  const key = (event: KeyboardEvent) => {
    if (event.key !== 'Escape') return;
    event.preventDefault();
    event.stopPropagation();
    cancel();
  };
  window.addEventListener('pointermove', move);
  window.addEventListener('pointerup', up);
  window.addEventListener('pointercancel', lost);
  window.addEventListener('keydown', key, true);
}
