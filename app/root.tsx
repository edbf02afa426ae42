import { Tooltip } from "radix-ui";
import { isRouteErrorResponse, Links, Meta, Outlet, Scripts, ScrollRestoration } from "react-router";
import { Toaster } from "sonner";
import type { Route } from "./+types/root";
import { DiskNotice } from "~/components/common/disk-notice";
import { diskNotice } from "~/db/workplace.server";
import "./app.css";
import { commonTexts } from "~/texts/common";

const t = commonTexts.root;

export const links: Route.LinksFunction = () => [{ rel: "icon", href: "/favicon.svg", type: "image/svg+xml" }];

export function Layout({ children }: { children: React.ReactNode }) {
  return (
    <html lang="en">
      <head>
        <meta charSet="utf-8" />
        <meta name="viewport" content="width=device-width, initial-scale=1" />
        <Meta />
        <Links />
      </head>
      <body>
        {children}
        <ScrollRestoration />
        <Scripts />
      </body>
    </html>
  );
}

/** Notice about scarce disk space, shown on every page. */
export function loader() {
  return { diskNotice: diskNotice() };
}

export default function App({ loaderData }: Route.ComponentProps) {
  return (
    <Tooltip.Provider delayDuration={400}>
      <DiskNotice message={loaderData.diskNotice} />
      <Outlet />
      <Toaster position="bottom-center" theme="system" toastOptions={{ className: "pointer-events-auto" }} />
    </Tooltip.Provider>
  );
}

export function ErrorBoundary({ error }: Route.ErrorBoundaryProps) {
  const missing = isRouteErrorResponse(error) && error.status === 404;
  const detail = isRouteErrorResponse(error)
    ? error.data || error.statusText
    : error instanceof Error
      ? error.message
      : "";
  return (
    <main className="mx-auto max-w-xl p-12">
      <h1 className="font-display text-2xl font-semibold">{missing ? t.thisIsNotHere : t.somethingWentWrong}</h1>
      <p className="mt-3 text-soft">{String(detail)}</p>
      <a className="mt-6 inline-block text-accent underline" href="/">
        {t.backToYourFilms}
      </a>
    </main>
  );
}
