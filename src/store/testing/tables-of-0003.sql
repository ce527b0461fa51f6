-- A pantry in the tables of migration 0003, as pg_dump wrote them.
SET statement_timeout = 0;
SET lock_timeout = 0;
SET idle_in_transaction_session_timeout = 0;
SET client_encoding = 'UTF8';
SET standard_conforming_strings = on;
SELECT pg_catalog.set_config('search_path', '', false);
SET check_function_bodies = false;
SET xmloption = content;
SET client_min_messages = warning;
SET row_security = off;
SET default_tablespace = '';
SET default_table_access_method = heap;
CREATE TABLE public.change (
    pantry_id character varying(12) NOT NULL,
    revision integer NOT NULL,
    author character varying(80) NOT NULL,
    at timestamp(3) with time zone NOT NULL,
    note text NOT NULL,
    undoes integer,
    edits jsonb NOT NULL,
    size integer NOT NULL,
    moved jsonb
);
CREATE TABLE public.change_touch (
    pantry_id character varying(12) NOT NULL,
    revision integer NOT NULL,
    record character varying(12) NOT NULL
);
CREATE TABLE public.currency (
    id character varying(12) NOT NULL,
    pantry_id character varying(12) NOT NULL,
    key character varying(90) NOT NULL,
    name character varying(120) NOT NULL,
    symbol character varying(12) NOT NULL,
    worth double precision NOT NULL
);
CREATE TABLE public.item (
    id character varying(12) NOT NULL,
    pantry_id character varying(12) NOT NULL,
    key character varying(90) NOT NULL,
    name character varying(120) NOT NULL,
    type_id character varying(12),
    rarity_id character varying(12),
    level integer,
    icon character varying(80),
    stack integer,
    mass double precision,
    buy double precision,
    sell double precision,
    description text NOT NULL,
    status character varying(10) NOT NULL,
    note text NOT NULL
);
CREATE TABLE public.item_stat (
    item_id character varying(12) NOT NULL,
    stat_id character varying(12) NOT NULL,
    value double precision NOT NULL,
    pantry_id character varying(12) NOT NULL
);
CREATE TABLE public.item_tag (
    item_id character varying(12) NOT NULL,
    tag_id character varying(12) NOT NULL,
    "position" integer NOT NULL,
    pantry_id character varying(12) NOT NULL
);
CREATE TABLE public.item_type (
    id character varying(12) NOT NULL,
    pantry_id character varying(12) NOT NULL,
    key character varying(90) NOT NULL,
    name character varying(120) NOT NULL,
    parent_id character varying(12),
    colour character varying(7) NOT NULL,
    level integer,
    icon character varying(80),
    stack integer,
    mass double precision,
    buy double precision,
    sell double precision
);
CREATE TABLE public.item_type_stat (
    type_id character varying(12) NOT NULL,
    stat_id character varying(12) NOT NULL,
    value double precision NOT NULL,
    pantry_id character varying(12) NOT NULL
);
CREATE TABLE public.migration (
    id integer NOT NULL,
    name character varying(255),
    executed_at timestamp with time zone DEFAULT CURRENT_TIMESTAMP
);
CREATE SEQUENCE public.migration_id_seq
    AS integer
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1;
ALTER SEQUENCE public.migration_id_seq OWNED BY public.migration.id;
CREATE TABLE public.pantry (
    id character varying(12) NOT NULL,
    key character varying(90) NOT NULL,
    name character varying(120) NOT NULL,
    ticks_per_second integer NOT NULL,
    labour_per_hour double precision NOT NULL,
    price_floor double precision NOT NULL,
    salvage_ceiling double precision NOT NULL,
    revision integer DEFAULT 0 NOT NULL
);
CREATE TABLE public.rarity (
    id character varying(12) NOT NULL,
    pantry_id character varying(12) NOT NULL,
    key character varying(90) NOT NULL,
    name character varying(120) NOT NULL,
    rank integer NOT NULL,
    colour character varying(7) NOT NULL
);
CREATE TABLE public.recipe (
    id character varying(12) NOT NULL,
    pantry_id character varying(12) NOT NULL,
    key character varying(90) NOT NULL,
    name character varying(120) NOT NULL,
    kind character varying(10) NOT NULL,
    ticks bigint NOT NULL,
    fee double precision NOT NULL,
    fee_currency_id character varying(12),
    status character varying(10) NOT NULL,
    note text NOT NULL,
    level integer,
    taught_by_id character varying(12)
);
CREATE TABLE public.recipe_line (
    recipe_id character varying(12) NOT NULL,
    "position" integer NOT NULL,
    role character varying(10) NOT NULL,
    item_id character varying(12) NOT NULL,
    min double precision NOT NULL,
    max double precision NOT NULL,
    chance double precision NOT NULL,
    uses integer,
    draw integer,
    times integer,
    weight double precision,
    draw_of double precision,
    pantry_id character varying(12) NOT NULL
);
CREATE TABLE public.source (
    id character varying(12) NOT NULL,
    pantry_id character varying(12) NOT NULL,
    key character varying(90) NOT NULL,
    name character varying(120) NOT NULL,
    kind character varying(10) NOT NULL,
    ticks bigint NOT NULL,
    price double precision NOT NULL,
    currency_id character varying(12),
    note text NOT NULL
);
CREATE TABLE public.source_line (
    source_id character varying(12) NOT NULL,
    "position" integer NOT NULL,
    role character varying(10) NOT NULL,
    item_id character varying(12) NOT NULL,
    min double precision NOT NULL,
    max double precision NOT NULL,
    chance double precision NOT NULL,
    uses integer,
    draw integer,
    times integer,
    weight double precision,
    draw_of double precision,
    pantry_id character varying(12) NOT NULL
);
CREATE TABLE public.stat (
    id character varying(12) NOT NULL,
    pantry_id character varying(12) NOT NULL,
    key character varying(90) NOT NULL,
    name character varying(120) NOT NULL,
    unit character varying(20) NOT NULL,
    form character varying(10) NOT NULL,
    better character varying(10) NOT NULL,
    min double precision,
    max double precision
);
CREATE TABLE public.tag (
    id character varying(12) NOT NULL,
    pantry_id character varying(12) NOT NULL,
    key character varying(90) NOT NULL,
    name character varying(120) NOT NULL
);
ALTER TABLE ONLY public.migration ALTER COLUMN id SET DEFAULT nextval('public.migration_id_seq'::regclass);
INSERT INTO public.change VALUES ('dhvyx2nb1j1g', 1, 'salty', '2026-01-02 03:04:05+00', 'Imported small.json', NULL, '[{"op": "add", "kind": "item", "record": {"id": "pjse2bijotk3", "buy": null, "key": "salt", "icon": null, "mass": null, "name": "Salt", "note": "", "sell": null, "tags": [], "type": null, "level": null, "stack": null, "stats": {}, "rarity": null, "status": "stub", "description": ""}}, {"op": "add", "kind": "item", "record": {"id": "xtlqy67z7ozp", "buy": null, "key": "skin", "icon": null, "mass": null, "name": "Skin", "note": "", "sell": null, "tags": [], "type": null, "level": null, "stack": null, "stats": {}, "rarity": null, "status": "stub", "description": ""}}, {"op": "add", "kind": "item", "record": {"id": "j920qv9c6u1k", "buy": null, "key": "knife", "icon": null, "mass": null, "name": "Knife", "note": "", "sell": null, "tags": [], "type": null, "level": null, "stack": null, "stats": {}, "rarity": null, "status": "stub", "description": ""}}, {"op": "add", "kind": "item", "record": {"id": "531yejf7crwy", "buy": null, "key": "pearl", "icon": null, "mass": null, "name": "Pearl", "note": "", "sell": null, "tags": [], "type": null, "level": null, "stack": null, "stats": {}, "rarity": null, "status": "stub", "description": ""}}, {"op": "add", "kind": "item", "record": {"id": "6x2yuyqohhag", "buy": null, "key": "smokehouse", "icon": null, "mass": null, "name": "Smokehouse", "note": "", "sell": null, "tags": [], "type": null, "level": null, "stack": null, "stats": {}, "rarity": null, "status": "stub", "description": ""}}, {"op": "add", "kind": "currency", "record": {"id": "vod4h4s9fgce", "key": "shells", "name": "shells", "worth": 1, "symbol": "sh"}}, {"op": "add", "kind": "currency", "record": {"id": "e8uq1ecupzza", "key": "brass", "name": "brass", "worth": 12, "symbol": ""}}, {"op": "add", "kind": "rarity", "record": {"id": "as9xvfnlje8q", "key": "sound", "name": "Sound", "rank": 2, "colour": "#5c8a86"}}, {"op": "add", "kind": "stat", "record": {"id": "h14upe11bkzc", "key": "vigour", "max": 100, "min": -5, "form": "whole", "name": "Vigour", "unit": "", "better": "higher"}}, {"op": "add", "kind": "stat", "record": {"id": "dy496ewmr8aq", "key": "reek", "max": null, "min": null, "form": "decimal", "name": "Reek", "unit": "", "better": "lower"}}, {"op": "add", "kind": "tag", "record": {"id": "i02cxzg6so38", "key": "fish", "name": "fish"}}, {"op": "add", "kind": "tag", "record": {"id": "3usda00bayut", "key": "cold", "name": "cold"}}, {"op": "add", "kind": "type", "record": {"id": "2g05h3szko79", "buy": null, "key": "goods", "icon": null, "mass": null, "name": "Goods", "sell": null, "level": null, "stack": null, "stats": {}, "colour": "#2c6e8f", "parent": null}}, {"op": "add", "kind": "type", "record": {"id": "3i9hhujm1e9s", "buy": null, "key": "fare", "icon": "fish", "mass": null, "name": "Fare", "sell": null, "level": 2, "stack": 10, "stats": {"h14upe11bkzc": 1}, "colour": "#2c6e8f", "parent": "2g05h3szko79"}}, {"op": "add", "kind": "item", "record": {"id": "14hcj8ywlfo9", "buy": null, "key": "smoked_eel", "icon": null, "mass": null, "name": "Smoked eel", "note": "keep", "sell": 13, "tags": ["i02cxzg6so38", "3usda00bayut"], "type": "3i9hhujm1e9s", "level": 6, "stack": null, "stats": {"dy496ewmr8aq": 2.5, "h14upe11bkzc": 42}, "rarity": "as9xvfnlje8q", "status": "ready", "description": "Oily.\nGood."}}, {"op": "add", "kind": "item", "record": {"id": "n71hblxnvzmc", "buy": 3, "key": "river_eel", "icon": null, "mass": 1.25, "name": "River eel", "note": "", "sell": null, "tags": [], "type": null, "level": null, "stack": null, "stats": {}, "rarity": null, "status": "ready", "description": ""}}, {"op": "add", "kind": "item", "record": {"id": "489omhbk2seb", "buy": null, "key": "eel_book", "icon": null, "mass": null, "name": "Eel book", "note": "", "sell": null, "tags": [], "type": null, "level": null, "stack": null, "stats": {}, "rarity": null, "status": "draft", "description": ""}}, {"op": "add", "kind": "source", "record": {"id": "fquhmitv2miv", "key": "weir", "kind": "gathering", "name": "Weir", "note": "", "lines": [{"max": 2, "min": 1, "item": "n71hblxnvzmc", "role": "output", "uses": null, "chance": 1}, {"max": 1, "min": 1, "item": "pjse2bijotk3", "role": "output", "uses": null, "chance": 0.1}], "price": 0, "ticks": 1600, "currency": null}}, {"op": "add", "kind": "source", "record": {"id": "gch480hk1jzf", "key": "chandler", "kind": "shop", "name": "Chandler", "note": "By the pier", "lines": [{"max": 1, "min": 1, "item": "j920qv9c6u1k", "role": "output", "uses": null, "chance": 1}, {"max": 1, "min": 1, "draw": {"of": 6, "group": 1, "times": 1, "weight": 1}, "item": "xtlqy67z7ozp", "role": "output", "uses": null, "chance": 1}, {"max": 1, "min": 1, "draw": {"of": 6, "group": 1, "times": 1, "weight": 2}, "item": "pjse2bijotk3", "role": "output", "uses": null, "chance": 1}], "price": 7, "ticks": 0, "currency": "vod4h4s9fgce"}}, {"op": "add", "kind": "recipe", "record": {"id": "c9q9p5r53mro", "fee": 2, "key": "smoke_eel", "kind": "craft", "name": "Smoke eel", "note": "", "level": 4, "lines": [{"max": 2, "min": 2, "item": "n71hblxnvzmc", "role": "ingredient", "uses": null, "chance": 1}, {"max": 1, "min": 1, "item": "pjse2bijotk3", "role": "ingredient", "uses": null, "chance": 0.5}, {"max": 2, "min": 2, "item": "14hcj8ywlfo9", "role": "output", "uses": null, "chance": 1}, {"max": 2, "min": 1, "draw": {"of": 10, "group": 1, "times": 3, "weight": 5}, "item": "xtlqy67z7ozp", "role": "output", "uses": null, "chance": 1}, {"max": 1, "min": 1, "draw": {"of": 10, "group": 1, "times": 3, "weight": 0.5}, "item": "531yejf7crwy", "role": "output", "uses": null, "chance": 1}, {"max": 1, "min": 1, "item": "6x2yuyqohhag", "role": "station", "uses": null, "chance": 1}, {"max": 1, "min": 1, "item": "j920qv9c6u1k", "role": "tool", "uses": 50, "chance": 1}], "ticks": 1800, "status": "ready", "taughtBy": "489omhbk2seb", "feeCurrency": "e8uq1ecupzza"}}, {"op": "add", "kind": "recipe", "record": {"id": "sjso8ru68p9z", "fee": 0, "key": "salvage_smoked_eel", "kind": "salvage", "name": "Salvage Smoked eel", "note": "", "level": null, "lines": [{"max": 1, "min": 1, "item": "14hcj8ywlfo9", "role": "ingredient", "uses": null, "chance": 1}, {"max": 1, "min": 1, "item": "xtlqy67z7ozp", "role": "output", "uses": null, "chance": 1}], "ticks": 0, "status": "ready", "taughtBy": null, "feeCurrency": null}}, {"id": "dhvyx2nb1j1g", "op": "set", "to": 60, "from": 0, "kind": "pantry", "field": "labourPerHour"}, {"id": "dhvyx2nb1j1g", "op": "set", "to": 0.9, "from": 1, "kind": "pantry", "field": "priceFloor"}, {"id": "dhvyx2nb1j1g", "op": "set", "to": 1.1, "from": 1, "kind": "pantry", "field": "salvageCeiling"}]', 24, NULL);
INSERT INTO public.change VALUES ('dhvyx2nb1j1g', 2, 'salty', '2026-01-02 03:04:05+00', 'Imported small2.json', NULL, '[{"id": "n71hblxnvzmc", "op": "set", "to": 1.5, "from": 1.25, "kind": "item", "field": "mass"}, {"id": "dhvyx2nb1j1g", "op": "set", "to": 0.8, "from": 0.9, "kind": "pantry", "field": "priceFloor"}]', 2, NULL);
INSERT INTO public.change_touch VALUES ('dhvyx2nb1j1g', 1, 'pjse2bijotk3');
INSERT INTO public.change_touch VALUES ('dhvyx2nb1j1g', 1, 'xtlqy67z7ozp');
INSERT INTO public.change_touch VALUES ('dhvyx2nb1j1g', 1, 'j920qv9c6u1k');
INSERT INTO public.change_touch VALUES ('dhvyx2nb1j1g', 1, '531yejf7crwy');
INSERT INTO public.change_touch VALUES ('dhvyx2nb1j1g', 1, '6x2yuyqohhag');
INSERT INTO public.change_touch VALUES ('dhvyx2nb1j1g', 1, 'vod4h4s9fgce');
INSERT INTO public.change_touch VALUES ('dhvyx2nb1j1g', 1, 'e8uq1ecupzza');
INSERT INTO public.change_touch VALUES ('dhvyx2nb1j1g', 1, 'as9xvfnlje8q');
INSERT INTO public.change_touch VALUES ('dhvyx2nb1j1g', 1, 'h14upe11bkzc');
INSERT INTO public.change_touch VALUES ('dhvyx2nb1j1g', 1, 'dy496ewmr8aq');
INSERT INTO public.change_touch VALUES ('dhvyx2nb1j1g', 1, 'i02cxzg6so38');
INSERT INTO public.change_touch VALUES ('dhvyx2nb1j1g', 1, '3usda00bayut');
INSERT INTO public.change_touch VALUES ('dhvyx2nb1j1g', 1, '2g05h3szko79');
INSERT INTO public.change_touch VALUES ('dhvyx2nb1j1g', 1, '3i9hhujm1e9s');
INSERT INTO public.change_touch VALUES ('dhvyx2nb1j1g', 1, '14hcj8ywlfo9');
INSERT INTO public.change_touch VALUES ('dhvyx2nb1j1g', 1, 'n71hblxnvzmc');
INSERT INTO public.change_touch VALUES ('dhvyx2nb1j1g', 1, '489omhbk2seb');
INSERT INTO public.change_touch VALUES ('dhvyx2nb1j1g', 1, 'fquhmitv2miv');
INSERT INTO public.change_touch VALUES ('dhvyx2nb1j1g', 1, 'gch480hk1jzf');
INSERT INTO public.change_touch VALUES ('dhvyx2nb1j1g', 1, 'c9q9p5r53mro');
INSERT INTO public.change_touch VALUES ('dhvyx2nb1j1g', 1, 'sjso8ru68p9z');
INSERT INTO public.change_touch VALUES ('dhvyx2nb1j1g', 1, 'dhvyx2nb1j1g');
INSERT INTO public.change_touch VALUES ('dhvyx2nb1j1g', 2, 'n71hblxnvzmc');
INSERT INTO public.change_touch VALUES ('dhvyx2nb1j1g', 2, 'dhvyx2nb1j1g');
INSERT INTO public.currency VALUES ('vod4h4s9fgce', 'dhvyx2nb1j1g', 'shells', 'shells', 'sh', 1);
INSERT INTO public.currency VALUES ('e8uq1ecupzza', 'dhvyx2nb1j1g', 'brass', 'brass', '', 12);
INSERT INTO public.item VALUES ('pjse2bijotk3', 'dhvyx2nb1j1g', 'salt', 'Salt', NULL, NULL, NULL, NULL, NULL, NULL, NULL, NULL, '', 'stub', '');
INSERT INTO public.item VALUES ('xtlqy67z7ozp', 'dhvyx2nb1j1g', 'skin', 'Skin', NULL, NULL, NULL, NULL, NULL, NULL, NULL, NULL, '', 'stub', '');
INSERT INTO public.item VALUES ('j920qv9c6u1k', 'dhvyx2nb1j1g', 'knife', 'Knife', NULL, NULL, NULL, NULL, NULL, NULL, NULL, NULL, '', 'stub', '');
INSERT INTO public.item VALUES ('531yejf7crwy', 'dhvyx2nb1j1g', 'pearl', 'Pearl', NULL, NULL, NULL, NULL, NULL, NULL, NULL, NULL, '', 'stub', '');
INSERT INTO public.item VALUES ('6x2yuyqohhag', 'dhvyx2nb1j1g', 'smokehouse', 'Smokehouse', NULL, NULL, NULL, NULL, NULL, NULL, NULL, NULL, '', 'stub', '');
INSERT INTO public.item VALUES ('14hcj8ywlfo9', 'dhvyx2nb1j1g', 'smoked_eel', 'Smoked eel', '3i9hhujm1e9s', 'as9xvfnlje8q', 6, NULL, NULL, NULL, NULL, 13, 'Oily.
Good.', 'ready', 'keep');
INSERT INTO public.item VALUES ('489omhbk2seb', 'dhvyx2nb1j1g', 'eel_book', 'Eel book', NULL, NULL, NULL, NULL, NULL, NULL, NULL, NULL, '', 'draft', '');
INSERT INTO public.item VALUES ('n71hblxnvzmc', 'dhvyx2nb1j1g', 'river_eel', 'River eel', NULL, NULL, NULL, NULL, NULL, 1.5, 3, NULL, '', 'ready', '');
INSERT INTO public.item_stat VALUES ('14hcj8ywlfo9', 'h14upe11bkzc', 42, 'dhvyx2nb1j1g');
INSERT INTO public.item_stat VALUES ('14hcj8ywlfo9', 'dy496ewmr8aq', 2.5, 'dhvyx2nb1j1g');
INSERT INTO public.item_tag VALUES ('14hcj8ywlfo9', 'i02cxzg6so38', 0, 'dhvyx2nb1j1g');
INSERT INTO public.item_tag VALUES ('14hcj8ywlfo9', '3usda00bayut', 1, 'dhvyx2nb1j1g');
INSERT INTO public.item_type VALUES ('2g05h3szko79', 'dhvyx2nb1j1g', 'goods', 'Goods', NULL, '#2c6e8f', NULL, NULL, NULL, NULL, NULL, NULL);
INSERT INTO public.item_type VALUES ('3i9hhujm1e9s', 'dhvyx2nb1j1g', 'fare', 'Fare', '2g05h3szko79', '#2c6e8f', 2, 'fish', 10, NULL, NULL, NULL);
INSERT INTO public.item_type_stat VALUES ('3i9hhujm1e9s', 'h14upe11bkzc', 1, 'dhvyx2nb1j1g');
INSERT INTO public.migration VALUES (1, '0001-first-tables', '2026-01-02 03:04:05+00');
INSERT INTO public.migration VALUES (2, '0002-draws-and-unlocks', '2026-01-02 03:04:05+00');
INSERT INTO public.migration VALUES (3, '0003-records-by-pantry', '2026-01-02 03:04:05+00');
INSERT INTO public.pantry VALUES ('dhvyx2nb1j1g', 'small_reach', 'Small Reach', 20, 60, 0.8, 1.1, 2);
INSERT INTO public.rarity VALUES ('as9xvfnlje8q', 'dhvyx2nb1j1g', 'sound', 'Sound', 2, '#5c8a86');
INSERT INTO public.recipe VALUES ('c9q9p5r53mro', 'dhvyx2nb1j1g', 'smoke_eel', 'Smoke eel', 'craft', 1800, 2, 'e8uq1ecupzza', 'ready', '', 4, '489omhbk2seb');
INSERT INTO public.recipe VALUES ('sjso8ru68p9z', 'dhvyx2nb1j1g', 'salvage_smoked_eel', 'Salvage Smoked eel', 'salvage', 0, 0, NULL, 'ready', '', NULL, NULL);
INSERT INTO public.recipe_line VALUES ('c9q9p5r53mro', 0, 'ingredient', 'n71hblxnvzmc', 2, 2, 1, NULL, NULL, NULL, NULL, NULL, 'dhvyx2nb1j1g');
INSERT INTO public.recipe_line VALUES ('c9q9p5r53mro', 1, 'ingredient', 'pjse2bijotk3', 1, 1, 0.5, NULL, NULL, NULL, NULL, NULL, 'dhvyx2nb1j1g');
INSERT INTO public.recipe_line VALUES ('c9q9p5r53mro', 2, 'output', '14hcj8ywlfo9', 2, 2, 1, NULL, NULL, NULL, NULL, NULL, 'dhvyx2nb1j1g');
INSERT INTO public.recipe_line VALUES ('c9q9p5r53mro', 3, 'output', 'xtlqy67z7ozp', 1, 2, 1, NULL, 1, 3, 5, 10, 'dhvyx2nb1j1g');
INSERT INTO public.recipe_line VALUES ('c9q9p5r53mro', 4, 'output', '531yejf7crwy', 1, 1, 1, NULL, 1, 3, 0.5, 10, 'dhvyx2nb1j1g');
INSERT INTO public.recipe_line VALUES ('c9q9p5r53mro', 5, 'station', '6x2yuyqohhag', 1, 1, 1, NULL, NULL, NULL, NULL, NULL, 'dhvyx2nb1j1g');
INSERT INTO public.recipe_line VALUES ('c9q9p5r53mro', 6, 'tool', 'j920qv9c6u1k', 1, 1, 1, 50, NULL, NULL, NULL, NULL, 'dhvyx2nb1j1g');
INSERT INTO public.recipe_line VALUES ('sjso8ru68p9z', 0, 'ingredient', '14hcj8ywlfo9', 1, 1, 1, NULL, NULL, NULL, NULL, NULL, 'dhvyx2nb1j1g');
INSERT INTO public.recipe_line VALUES ('sjso8ru68p9z', 1, 'output', 'xtlqy67z7ozp', 1, 1, 1, NULL, NULL, NULL, NULL, NULL, 'dhvyx2nb1j1g');
INSERT INTO public.source VALUES ('fquhmitv2miv', 'dhvyx2nb1j1g', 'weir', 'Weir', 'gathering', 1600, 0, NULL, '');
INSERT INTO public.source VALUES ('gch480hk1jzf', 'dhvyx2nb1j1g', 'chandler', 'Chandler', 'shop', 0, 7, 'vod4h4s9fgce', 'By the pier');
INSERT INTO public.source_line VALUES ('fquhmitv2miv', 0, 'output', 'n71hblxnvzmc', 1, 2, 1, NULL, NULL, NULL, NULL, NULL, 'dhvyx2nb1j1g');
INSERT INTO public.source_line VALUES ('fquhmitv2miv', 1, 'output', 'pjse2bijotk3', 1, 1, 0.1, NULL, NULL, NULL, NULL, NULL, 'dhvyx2nb1j1g');
INSERT INTO public.source_line VALUES ('gch480hk1jzf', 0, 'output', 'j920qv9c6u1k', 1, 1, 1, NULL, NULL, NULL, NULL, NULL, 'dhvyx2nb1j1g');
INSERT INTO public.source_line VALUES ('gch480hk1jzf', 1, 'output', 'xtlqy67z7ozp', 1, 1, 1, NULL, 1, 1, 1, 6, 'dhvyx2nb1j1g');
INSERT INTO public.source_line VALUES ('gch480hk1jzf', 2, 'output', 'pjse2bijotk3', 1, 1, 1, NULL, 1, 1, 2, 6, 'dhvyx2nb1j1g');
INSERT INTO public.stat VALUES ('h14upe11bkzc', 'dhvyx2nb1j1g', 'vigour', 'Vigour', '', 'whole', 'higher', -5, 100);
INSERT INTO public.stat VALUES ('dy496ewmr8aq', 'dhvyx2nb1j1g', 'reek', 'Reek', '', 'decimal', 'lower', NULL, NULL);
INSERT INTO public.tag VALUES ('i02cxzg6so38', 'dhvyx2nb1j1g', 'fish', 'fish');
INSERT INTO public.tag VALUES ('3usda00bayut', 'dhvyx2nb1j1g', 'cold', 'cold');
SELECT pg_catalog.setval('public.migration_id_seq', 3, true);
ALTER TABLE ONLY public.change
    ADD CONSTRAINT change_pkey PRIMARY KEY (pantry_id, revision);
ALTER TABLE ONLY public.change_touch
    ADD CONSTRAINT change_touch_pkey PRIMARY KEY (pantry_id, revision, record);
ALTER TABLE ONLY public.currency
    ADD CONSTRAINT currency_key_unique UNIQUE (pantry_id, key) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.currency
    ADD CONSTRAINT currency_pkey PRIMARY KEY (pantry_id, id);
ALTER TABLE ONLY public.item
    ADD CONSTRAINT item_key_unique UNIQUE (pantry_id, key) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.item
    ADD CONSTRAINT item_pkey PRIMARY KEY (pantry_id, id);
ALTER TABLE ONLY public.item_stat
    ADD CONSTRAINT item_stat_pkey PRIMARY KEY (pantry_id, item_id, stat_id);
ALTER TABLE ONLY public.item_tag
    ADD CONSTRAINT item_tag_pkey PRIMARY KEY (pantry_id, item_id, tag_id);
ALTER TABLE ONLY public.item_type
    ADD CONSTRAINT item_type_key_unique UNIQUE (pantry_id, key) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.item_type
    ADD CONSTRAINT item_type_pkey PRIMARY KEY (pantry_id, id);
ALTER TABLE ONLY public.item_type_stat
    ADD CONSTRAINT item_type_stat_pkey PRIMARY KEY (pantry_id, type_id, stat_id);
ALTER TABLE ONLY public.migration
    ADD CONSTRAINT migration_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.pantry
    ADD CONSTRAINT pantry_key_unique UNIQUE (key);
ALTER TABLE ONLY public.pantry
    ADD CONSTRAINT pantry_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.rarity
    ADD CONSTRAINT rarity_key_unique UNIQUE (pantry_id, key) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.rarity
    ADD CONSTRAINT rarity_pkey PRIMARY KEY (pantry_id, id);
ALTER TABLE ONLY public.recipe
    ADD CONSTRAINT recipe_key_unique UNIQUE (pantry_id, key) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.recipe_line
    ADD CONSTRAINT recipe_line_pkey PRIMARY KEY (pantry_id, recipe_id, "position");
ALTER TABLE ONLY public.recipe
    ADD CONSTRAINT recipe_pkey PRIMARY KEY (pantry_id, id);
ALTER TABLE ONLY public.source
    ADD CONSTRAINT source_key_unique UNIQUE (pantry_id, key) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.source_line
    ADD CONSTRAINT source_line_pkey PRIMARY KEY (pantry_id, source_id, "position");
ALTER TABLE ONLY public.source
    ADD CONSTRAINT source_pkey PRIMARY KEY (pantry_id, id);
ALTER TABLE ONLY public.stat
    ADD CONSTRAINT stat_key_unique UNIQUE (pantry_id, key) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.stat
    ADD CONSTRAINT stat_pkey PRIMARY KEY (pantry_id, id);
ALTER TABLE ONLY public.tag
    ADD CONSTRAINT tag_key_unique UNIQUE (pantry_id, key) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.tag
    ADD CONSTRAINT tag_pkey PRIMARY KEY (pantry_id, id);
CREATE INDEX change_touch_record_index ON public.change_touch USING btree (pantry_id, record);
CREATE INDEX item_rarity_id_index ON public.item USING btree (pantry_id, rarity_id);
CREATE INDEX item_stat_stat_id_index ON public.item_stat USING btree (pantry_id, stat_id);
CREATE INDEX item_tag_tag_id_index ON public.item_tag USING btree (pantry_id, tag_id);
CREATE INDEX item_type_id_index ON public.item USING btree (pantry_id, type_id);
CREATE INDEX item_type_parent_id_index ON public.item_type USING btree (pantry_id, parent_id);
CREATE INDEX item_type_stat_stat_id_index ON public.item_type_stat USING btree (pantry_id, stat_id);
CREATE INDEX recipe_fee_currency_id_index ON public.recipe USING btree (pantry_id, fee_currency_id);
CREATE INDEX recipe_line_item_id_index ON public.recipe_line USING btree (pantry_id, item_id);
CREATE INDEX recipe_taught_by_id_index ON public.recipe USING btree (pantry_id, taught_by_id);
CREATE INDEX source_currency_id_index ON public.source USING btree (pantry_id, currency_id);
CREATE INDEX source_line_item_id_index ON public.source_line USING btree (pantry_id, item_id);
ALTER TABLE ONLY public.change
    ADD CONSTRAINT change_pantry_id_foreign FOREIGN KEY (pantry_id) REFERENCES public.pantry(id) ON UPDATE CASCADE ON DELETE CASCADE;
ALTER TABLE ONLY public.change_touch
    ADD CONSTRAINT change_touch_pantry_id_foreign FOREIGN KEY (pantry_id) REFERENCES public.pantry(id) ON UPDATE CASCADE ON DELETE CASCADE;
ALTER TABLE ONLY public.currency
    ADD CONSTRAINT currency_pantry_id_foreign FOREIGN KEY (pantry_id) REFERENCES public.pantry(id) ON UPDATE CASCADE ON DELETE CASCADE;
ALTER TABLE ONLY public.item
    ADD CONSTRAINT item_pantry_id_foreign FOREIGN KEY (pantry_id) REFERENCES public.pantry(id) ON UPDATE CASCADE ON DELETE CASCADE;
ALTER TABLE ONLY public.item
    ADD CONSTRAINT item_rarity_id_foreign FOREIGN KEY (pantry_id, rarity_id) REFERENCES public.rarity(pantry_id, id) ON UPDATE CASCADE DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.item_stat
    ADD CONSTRAINT item_stat_item_id_foreign FOREIGN KEY (pantry_id, item_id) REFERENCES public.item(pantry_id, id) ON UPDATE CASCADE ON DELETE CASCADE DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.item_stat
    ADD CONSTRAINT item_stat_pantry_id_foreign FOREIGN KEY (pantry_id) REFERENCES public.pantry(id) ON UPDATE CASCADE ON DELETE CASCADE;
ALTER TABLE ONLY public.item_stat
    ADD CONSTRAINT item_stat_stat_id_foreign FOREIGN KEY (pantry_id, stat_id) REFERENCES public.stat(pantry_id, id) ON UPDATE CASCADE DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.item_tag
    ADD CONSTRAINT item_tag_item_id_foreign FOREIGN KEY (pantry_id, item_id) REFERENCES public.item(pantry_id, id) ON UPDATE CASCADE ON DELETE CASCADE DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.item_tag
    ADD CONSTRAINT item_tag_pantry_id_foreign FOREIGN KEY (pantry_id) REFERENCES public.pantry(id) ON UPDATE CASCADE ON DELETE CASCADE;
ALTER TABLE ONLY public.item_tag
    ADD CONSTRAINT item_tag_tag_id_foreign FOREIGN KEY (pantry_id, tag_id) REFERENCES public.tag(pantry_id, id) ON UPDATE CASCADE DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.item
    ADD CONSTRAINT item_type_id_foreign FOREIGN KEY (pantry_id, type_id) REFERENCES public.item_type(pantry_id, id) ON UPDATE CASCADE DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.item_type
    ADD CONSTRAINT item_type_pantry_id_foreign FOREIGN KEY (pantry_id) REFERENCES public.pantry(id) ON UPDATE CASCADE ON DELETE CASCADE;
ALTER TABLE ONLY public.item_type
    ADD CONSTRAINT item_type_parent_id_foreign FOREIGN KEY (pantry_id, parent_id) REFERENCES public.item_type(pantry_id, id) ON UPDATE CASCADE DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.item_type_stat
    ADD CONSTRAINT item_type_stat_pantry_id_foreign FOREIGN KEY (pantry_id) REFERENCES public.pantry(id) ON UPDATE CASCADE ON DELETE CASCADE;
ALTER TABLE ONLY public.item_type_stat
    ADD CONSTRAINT item_type_stat_stat_id_foreign FOREIGN KEY (pantry_id, stat_id) REFERENCES public.stat(pantry_id, id) ON UPDATE CASCADE DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.item_type_stat
    ADD CONSTRAINT item_type_stat_type_id_foreign FOREIGN KEY (pantry_id, type_id) REFERENCES public.item_type(pantry_id, id) ON UPDATE CASCADE ON DELETE CASCADE DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.rarity
    ADD CONSTRAINT rarity_pantry_id_foreign FOREIGN KEY (pantry_id) REFERENCES public.pantry(id) ON UPDATE CASCADE ON DELETE CASCADE;
ALTER TABLE ONLY public.recipe
    ADD CONSTRAINT recipe_fee_currency_id_foreign FOREIGN KEY (pantry_id, fee_currency_id) REFERENCES public.currency(pantry_id, id) ON UPDATE CASCADE DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.recipe_line
    ADD CONSTRAINT recipe_line_item_id_foreign FOREIGN KEY (pantry_id, item_id) REFERENCES public.item(pantry_id, id) ON UPDATE CASCADE DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.recipe_line
    ADD CONSTRAINT recipe_line_pantry_id_foreign FOREIGN KEY (pantry_id) REFERENCES public.pantry(id) ON UPDATE CASCADE ON DELETE CASCADE;
ALTER TABLE ONLY public.recipe_line
    ADD CONSTRAINT recipe_line_recipe_id_foreign FOREIGN KEY (pantry_id, recipe_id) REFERENCES public.recipe(pantry_id, id) ON UPDATE CASCADE ON DELETE CASCADE DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.recipe
    ADD CONSTRAINT recipe_pantry_id_foreign FOREIGN KEY (pantry_id) REFERENCES public.pantry(id) ON UPDATE CASCADE ON DELETE CASCADE;
ALTER TABLE ONLY public.recipe
    ADD CONSTRAINT recipe_taught_by_id_foreign FOREIGN KEY (pantry_id, taught_by_id) REFERENCES public.item(pantry_id, id) ON UPDATE CASCADE DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.source
    ADD CONSTRAINT source_currency_id_foreign FOREIGN KEY (pantry_id, currency_id) REFERENCES public.currency(pantry_id, id) ON UPDATE CASCADE DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.source_line
    ADD CONSTRAINT source_line_item_id_foreign FOREIGN KEY (pantry_id, item_id) REFERENCES public.item(pantry_id, id) ON UPDATE CASCADE DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.source_line
    ADD CONSTRAINT source_line_pantry_id_foreign FOREIGN KEY (pantry_id) REFERENCES public.pantry(id) ON UPDATE CASCADE ON DELETE CASCADE;
ALTER TABLE ONLY public.source_line
    ADD CONSTRAINT source_line_source_id_foreign FOREIGN KEY (pantry_id, source_id) REFERENCES public.source(pantry_id, id) ON UPDATE CASCADE ON DELETE CASCADE DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.source
    ADD CONSTRAINT source_pantry_id_foreign FOREIGN KEY (pantry_id) REFERENCES public.pantry(id) ON UPDATE CASCADE ON DELETE CASCADE;
ALTER TABLE ONLY public.stat
    ADD CONSTRAINT stat_pantry_id_foreign FOREIGN KEY (pantry_id) REFERENCES public.pantry(id) ON UPDATE CASCADE ON DELETE CASCADE;
ALTER TABLE ONLY public.tag
    ADD CONSTRAINT tag_pantry_id_foreign FOREIGN KEY (pantry_id) REFERENCES public.pantry(id) ON UPDATE CASCADE ON DELETE CASCADE;
