"use client";
/** The types as the tree they make, beside the sheet of the one that is chosen. */
import { ChevronDown, ChevronRight, Plus, Trash2 } from "lucide-react";
import { type KeyboardEvent, useEffect, useId, useMemo, useRef, useState } from "react";
import { byKey } from "@/core/catalogue/keys";
import { held } from "@/core/catalogue/inheritance";
import { type TypeNode, typeTree } from "@/core/catalogue/types";
import { FreeKeys } from "@/core/editing/new-names";
import { type ItemType, withDefaults } from "@/core/kinds/index";
import { newId, type Id } from "@/core/schema/id";
import { usePlaces } from "../frame/navigate";
import { RemoveButton } from "../frame/remove";
import { UsesButton } from "../frame/uses";
import { Icon } from "../kit/jars";
import { Button, cx, Empty } from "../kit/kit";
import { TypeSheet } from "./lazily";
import { useLive, useStore } from "../pantry/provider";

export function TypeTree() {
  const { catalogue } = useLive();
  const store = useStore();
  const places = usePlaces();
  const prefix = useId();
  const list = useRef<HTMLDivElement>(null);
  const [closed, setClosed] = useState<ReadonlySet<Id>>(new Set());
  const { type: types, item: items } = catalogue.records;
  // biome-ignore lint/correctness/useExhaustiveDependencies: the tree is another where types are, or items change type
  const tree = useMemo(() => typeTree(catalogue), [types, items]);
  const rows = useMemo(() => shown(tree, closed), [tree, closed]);
  const wanted = byKey(catalogue, "type", places.query.get("record") ?? "")?.id;
  const at = Math.max(
    0,
    rows.findIndex((n) => n.id === wanted),
  );
  const chosen = types.get(rows[at]?.id as Id);
  const choose = (n: number) => {
    const type = types.get(rows[Math.max(0, Math.min(rows.length - 1, n))]?.id as Id);
    if (type) places.ask({ record: type.key }, true);
  };
  const toggle = (id: Id, close: boolean) =>
    setClosed((before) => new Set(close ? [...before, id] : [...before].filter((c) => c !== id)));
  // biome-ignore lint/correctness/useExhaustiveDependencies: another choice is brought into sight
  useEffect(() => {
    list.current?.querySelector('[aria-selected="true"]')?.scrollIntoView({ block: "nearest" });
  }, [chosen]);

  const press = (e: KeyboardEvent) => {
    const node = rows[at];
    if (!node || e.ctrlKey || e.metaKey || e.altKey) return;
    const open = node.children.length > 0 && !closed.has(node.id);
    if (e.key === "ArrowDown") choose(at + 1);
    else if (e.key === "ArrowUp") choose(at - 1);
    else if (e.key === "Home") choose(0);
    else if (e.key === "End") choose(rows.length - 1);
    else if (e.key === "ArrowRight" && open) choose(at + 1);
    else if (e.key === "ArrowRight") toggle(node.id, false);
    else if (e.key === "ArrowLeft" && open) toggle(node.id, true);
    else if (e.key === "ArrowLeft") choose(rows.findIndex((n) => n.children.includes(node)));
    else if (e.key.length === 1 && e.key !== " ") {
      // The next one that begins with the letter.
      const letter = e.key.toLowerCase();
      const order = [...rows.keys()].map((k) => (at + 1 + k) % rows.length);
      const next = order.find((k) => types.get(rows[k].id)?.name.toLowerCase().startsWith(letter));
      if (next !== undefined) choose(next);
    } else return;
    e.preventDefault();
  };

  const make = async (parent: ItemType | undefined) => {
    const name = "New type";
    const key = new FreeKeys(catalogue).next("type", name);
    const record = withDefaults("type", {
      id: newId(),
      key,
      name,
      parent: parent?.id ?? null,
      ...(parent ? { colour: parent.colour } : {}),
    });
    const answer = await store.submit([{ op: "add", kind: "type", record }]);
    if (parent) toggle(parent.id, false);
    if (answer.ok) places.ask({ record: key }, true);
  };

  if (!rows.length)
    return (
      <Empty
        title="No types yet"
        action={
          <Button look="solid" onClick={() => void make(undefined)}>
            Add the first type
          </Button>
        }
      >
        Types form a tree. Items and subtypes inherit what a type defines, such as a stack limit, an icon, a slot or
        stats, and can override it.
      </Empty>
    );
  return (
    <div className="flex min-h-0 flex-1">
      <div className="flex w-[272px] shrink-0 flex-col border-r border-line bg-salt">
        <div className="flex items-center gap-1.5 border-b border-hair px-3 py-1.5">
          <Button look="solid" onClick={() => void make(undefined)}>
            <Plus size={14} aria-hidden /> New type
          </Button>
          <Button disabled={!chosen} onClick={() => void make(chosen)}>
            New subtype
          </Button>
        </div>
        <div
          ref={list}
          role="tree"
          tabIndex={0}
          aria-label="Types"
          aria-activedescendant={`${prefix}-${rows[at].id}`}
          onKeyDown={press}
          className="min-h-0 flex-1 overflow-auto py-1.5"
        >
          {rows.map((node, n) => (
            <Node
              key={node.id}
              id={`${prefix}-${node.id}`}
              node={node}
              open={!closed.has(node.id)}
              chosen={n === at}
              onChoose={() => choose(n)}
              onToggle={() => toggle(node.id, !closed.has(node.id))}
            />
          ))}
        </div>
      </div>
      {chosen && (
        <TypeSheet
          key={chosen.id}
          type={chosen}
          action={
            <>
              <UsesButton kind="type" record={chosen} />
              <RemoveButton kind="type" record={chosen}>
                <Trash2 size={14} aria-hidden /> Remove {chosen.name}
              </RemoveButton>
            </>
          }
        />
      )}
    </div>
  );
}

/** The nodes that are not hidden under a closed one, from the top down. */
const shown = (nodes: readonly TypeNode[], closed: ReadonlySet<Id>): TypeNode[] =>
  nodes.flatMap((node) => [node, ...(closed.has(node.id) ? [] : shown(node.children, closed))]);

function Node({
  id,
  node,
  open,
  chosen,
  onChoose,
  onToggle,
}: {
  readonly id: string;
  readonly node: TypeNode;
  readonly open: boolean;
  readonly chosen: boolean;
  readonly onChoose: () => void;
  readonly onToggle: () => void;
}) {
  const { catalogue } = useLive();
  const type = catalogue.records.type.get(node.id);
  if (!type) return null;
  const { value, from } = held(catalogue, type, "icon");
  const Sign = open ? ChevronDown : ChevronRight;
  return (
    <div
      id={id}
      role="treeitem"
      tabIndex={-1}
      aria-level={node.level}
      aria-expanded={node.children.length ? open : undefined}
      aria-selected={chosen}
      onClick={onChoose}
      onKeyDown={() => undefined}
      className={cx("flex h-7 items-center gap-1.5 pr-3", chosen ? "bg-pick" : "hover:bg-shade")}
      style={{ paddingLeft: 8 + (node.level - 1) * 18 }}
    >
      <span
        aria-hidden
        className="grid size-4 shrink-0 place-items-center text-third"
        onClick={(e) => {
          e.stopPropagation();
          onToggle();
        }}
      >
        {node.children.length > 0 && <Sign size={14} />}
      </span>
      <span aria-hidden className="h-[18px] w-1 shrink-0" style={{ background: type.colour }} />
      <span className={cx("inline-flex", from === "inherited" && "opacity-55")} style={{ color: type.colour }}>
        <Icon name={value} size={16} />
      </span>
      <span className="truncate font-semibold">{type.name}</span>
      <span className="ml-auto shrink-0 text-second" title={`${node.items} items, including subtypes`}>
        {node.items}
      </span>
    </div>
  );
}
