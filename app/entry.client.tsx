import { startTransition, StrictMode } from "react";
import { hydrateRoot } from "react-dom/client";
import { HydratedRouter } from "react-router/dom";

// An aborted request is no failure. The router (7.18) leaves a promise of its own without a handler if it aborts one while
// the answer is still arriving.
window.addEventListener("unhandledrejection", (event) => {
  if (event.reason instanceof DOMException && event.reason.name === "AbortError") event.preventDefault();
});

startTransition(() => {
  hydrateRoot(
    document,
    <StrictMode>
      <HydratedRouter />
    </StrictMode>,
  );
});
