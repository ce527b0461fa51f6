"use client";
/** Where there is no one to try items out on: a usual character, made by one button. */
import { FreeKeys } from "@/core/editing/new-names";
import { withDefaults } from "@/core/kinds/index";
import { newId } from "@/core/schema/id";
import { Button, Empty } from "../kit/kit";
import { useLive, useStore } from "../pantry/provider";

export function NoCharacters() {
  const { catalogue } = useLive();
  const store = useStore();
  /** With every slot and resource there is; its bag has no limits. */
  const add = () => {
    const name = "Test character";
    const record = withDefaults("subject", {
      id: newId(),
      key: new FreeKeys(catalogue).next("subject", name),
      name,
      slots: [...catalogue.records.slot.keys()],
      resources: [...catalogue.records.resource.keys()],
    });
    return store.submit([{ op: "add", kind: "subject", record }]);
  };
  return (
    <Empty
      title="No test characters yet"
      action={
        <Button look="solid" onClick={() => void add()}>
          Create a test character
        </Button>
      }
    >
      A test character has a level, stats, resources, slots and a bag. Change them in Setup at any time.
    </Empty>
  );
}
