import { toast } from "sonner";
import type { Tell } from "../model/desk-inputs";

/** Shows a message at the foot of the page. */
export const tell: Tell = (text, tone = "plain", offer) => {
  const shown = offer && { action: { label: offer.label, onClick: offer.run }, duration: offer.forMs };
  if (tone === "plain") toast(text, shown);
  else toast[tone](text, shown);
};
