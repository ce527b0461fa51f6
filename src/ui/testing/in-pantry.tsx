/** Renders components in a loaded pantry, with a fake server that commits changes. */
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { render, screen } from "@testing-library/react";
import { userEvent } from "@testing-library/user-event";
import type { ReactNode } from "react";
import { vi } from "vitest";
import type { Catalogue } from "@/core/catalogue/catalogue";
import { PantryProvider, useView } from "../pantry/provider";
import { FakeEvents, FakeServer } from "./fake-server";

vi.mock("next/navigation", () => ({
  useParams: () => ({ pantry: "test" }),
  usePathname: () => window.location.pathname,
  useSearchParams: () => new URLSearchParams(window.location.search),
  useRouter: () => ({ push: () => {}, replace: () => {} }),
}));

function Loaded({ children }: { readonly children: ReactNode }) {
  return useView((view) => view.state !== null) ? <main>{children}</main> : null;
}

/** Renders a component over a catalogue and waits until the pantry is loaded. */
export async function inPantry(catalogue: Catalogue, shown: ReactNode) {
  const server = new FakeServer(catalogue);
  server.answer = (_, { edits }) => Response.json({ revision: server.commit(edits ?? []) });
  vi.stubGlobal("fetch", server.fetch);
  vi.stubGlobal("EventSource", FakeEvents);
  const page = render(
    <QueryClientProvider client={new QueryClient({ defaultOptions: { queries: { retry: false } } })}>
      <PantryProvider pantry="test">
        <Loaded>{shown}</Loaded>
      </PantryProvider>
    </QueryClientProvider>,
  );
  await screen.findByRole("main");
  return { ...page, server, user: userEvent.setup() };
}
