import { Popover } from "radix-ui";
import { type RefObject, useEffect, useRef, useState } from "react";
import { Button } from "~/components/common/button";
import { focusPanel } from "~/components/common/dialog-panel";
import { storeText, useStoredText } from "~/components/common/use-stored";
import { DEMO_FILM_NAME } from "~/core/demo-film";
import { useDesk } from "../state/desk-context";

const KEY = "glad-pan first steps";

interface Step {
  title: string;
  text: string;
  /** What of the desk it is about, as a selector. */
  at: string;
  side: "top" | "right" | "bottom" | "left";
}

const STEPS: readonly Step[] = [
  {
    title: "The shots",
    text: "Each shot of the film has its own framing. An eye marks what is worth a second look: click the shot to go there.",
    at: "[aria-label='Shots of the film']",
    side: "right",
  },
  {
    title: "The window",
    text: "What lies inside the window is what the version shows. Drag it, and the frame gets a key of yours that nothing overrides.",
    at: "[aria-label='The whole picture']",
    side: "bottom",
  },
  {
    title: "The lane",
    text: "The window's path, straight under the picture: time runs down. Circles are computed keys, squares are yours; drag them sideways or in time.",
    at: "[aria-label='Lane']",
    side: "top",
  },
  {
    title: "Who to follow",
    text: "Choose another subject, how the window moves, or a layout. Every change can be undone, also tomorrow.",
    at: "[aria-label='Settings']",
    side: "left",
  },
  {
    title: "Export",
    text: "When it looks right here, export all versions. Press ? at any time for the shortcuts.",
    at: "[data-step='export']",
    side: "bottom",
  },
];

/** Leads through the desk once more. */
export const startFirstSteps = (): void => storeText(KEY, "1");

/** Five steps through the desk, on the first visit to the film that ships with it, and whenever they are called for. */
export function FirstSteps() {
  const { film, shots } = useDesk();
  const stored = useStoredText(KEY);
  const isReady = shots.length > 0;
  useEffect(() => {
    if (isReady && film.name === DEMO_FILM_NAME && localStorage.getItem(KEY) === null) startFirstSteps();
  }, [isReady, film.name]);
  const step = STEPS[Number(stored) - 1];
  if (!step) return null;
  return <StepPanel key={stored} step={step} number={Number(stored)} />;
}

function StepPanel({ step, number }: { step: Step; number: number }) {
  const target = useRef<Element | null>(null);
  const [isThere, setThere] = useState(false);
  useEffect(() => {
    target.current = document.querySelector(step.at);
    setThere(target.current !== null);
    target.current?.setAttribute("data-shown-step", "");
    return () => target.current?.removeAttribute("data-shown-step");
  }, [step]);
  const go = (to: number) => storeText(KEY, to >= 1 && to <= STEPS.length ? String(to) : "done");
  if (!isThere) return null;
  return (
    <Popover.Root open onOpenChange={(isOpen) => !isOpen && go(0)}>
      <Popover.Anchor virtualRef={target as RefObject<Element>} />
      <Popover.Portal>
        <Popover.Content
          side={step.side}
          sideOffset={-24}
          collisionPadding={16}
          aria-label="First steps"
          onOpenAutoFocus={focusPanel}
          onInteractOutside={(event) => event.preventDefault()}
          className="z-40 flex w-80 flex-col gap-2 rounded-lg border border-accent bg-raised p-4 text-sm shadow-xl outline-none"
        >
          <h2 className="font-display text-base font-semibold">{step.title}</h2>
          <p>{step.text}</p>
          <div className="mt-1 flex items-center gap-2">
            <span className="grow text-xs text-soft">
              {number} of {STEPS.length}
            </span>
            {number < STEPS.length && (
              <Button variant="quiet" onClick={() => go(0)}>
                Skip
              </Button>
            )}
            {number > 1 && <Button onClick={() => go(number - 1)}>Back</Button>}
            <Button variant="accent" onClick={() => go(number + 1)}>
              {number < STEPS.length ? "Next" : "Done"}
            </Button>
          </div>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
