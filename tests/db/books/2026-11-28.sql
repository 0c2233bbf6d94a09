\restrict Nmcgk5DLdvweqPa9hQ2OiQGPcBIb3xcW7S4bqU280TRSCi1FkQUIKpsIOXuVmZ1
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
COMMENT ON SCHEMA public IS 'standard public schema';
CREATE FUNCTION public.add_production_bytes(production uuid, volume uuid, class text, bytes bigint) RETURNS void
    LANGUAGE sql
    AS $$
    insert into production_bytes (production_id, volume_id, byte_class, size_bytes) select production, volume, class, bytes where bytes <> 0
    on conflict (production_id, volume_id, byte_class) do update set size_bytes = production_bytes.size_bytes + excluded.size_bytes $$;
CREATE FUNCTION public.clip_recorded() RETURNS trigger
    LANGUAGE plpgsql
    AS $$
    declare told text := coalesce(new.probe->>'recordedAt', '');
    begin
      if tg_op = 'INSERT' then
        select clock_shift_ms into new.shift_ms from load where id = new.load_id;
      end if;
      new.recorded_at := told;
      if new.shift_ms <> 0 and told <> '' then
        begin
          new.recorded_at := to_char(
            (told::timestamptz + new.shift_ms * interval '1 millisecond') at time zone 'UTC',
            'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"');
        exception when others then
          -- A date that no calendar has stays as the file says it.
          null;
        end;
      end if;
      new.filmed_order := new.recorded_at || ' ' || left(new.path_text, 240);
      return new;
    end $$;
CREATE FUNCTION public.count_clips_insert() RETURNS trigger
    LANGUAGE plpgsql
    AS $$
      begin
        insert into load_summary as s (load_id, production_id, clips, media, length_ms, playable, videos, proxies_equal, proxies_differ, proxy_bytes_open)
        select load_id, production_id, coalesce(clips, 0), coalesce(media, 0), coalesce(length_ms, 0), coalesce(playable, 0), coalesce(videos, 0), coalesce(proxies_equal, 0), coalesce(proxies_differ, 0), coalesce(proxy_bytes_open, 0)
        from (select load_id, production_id, 
  sum(sign) filter (where shown and coalesce(part, 1) = 1) as clips,
  sum(sign) filter (where shown) as media,
  sum(sign * length_ms) filter (where shown) as length_ms,
  sum(sign) filter (where shown and playable) as playable,
  sum(sign) filter (where shown and has_video) as videos,
  sum(sign) filter (where shown and has_video and proxy = 'equal') as proxies_equal,
  sum(sign) filter (where shown and has_video and proxy = 'differs') as proxies_differ,
  sum(sign * proxy_bytes) filter (where shown and has_video and proxy <> 'equal') as proxy_bytes_open from (select *, 1 as sign from new_clips ) as clips
          group by load_id, production_id order by load_id, production_id) as delta
        on conflict (load_id, production_id) do update set clips = s.clips + excluded.clips, media = s.media + excluded.media, length_ms = s.length_ms + excluded.length_ms, playable = s.playable + excluded.playable, videos = s.videos + excluded.videos, proxies_equal = s.proxies_equal + excluded.proxies_equal, proxies_differ = s.proxies_differ + excluded.proxies_differ, proxy_bytes_open = s.proxy_bytes_open + excluded.proxy_bytes_open;
        return null;
      end $$;
CREATE FUNCTION public.count_clips_update() RETURNS trigger
    LANGUAGE plpgsql
    AS $$
      begin
        insert into load_summary as s (load_id, production_id, clips, media, length_ms, playable, videos, proxies_equal, proxies_differ, proxy_bytes_open)
        select load_id, production_id, coalesce(clips, 0), coalesce(media, 0), coalesce(length_ms, 0), coalesce(playable, 0), coalesce(videos, 0), coalesce(proxies_equal, 0), coalesce(proxies_differ, 0), coalesce(proxy_bytes_open, 0)
        from (select load_id, production_id, 
  sum(sign) filter (where shown and coalesce(part, 1) = 1) as clips,
  sum(sign) filter (where shown) as media,
  sum(sign * length_ms) filter (where shown) as length_ms,
  sum(sign) filter (where shown and playable) as playable,
  sum(sign) filter (where shown and has_video) as videos,
  sum(sign) filter (where shown and has_video and proxy = 'equal') as proxies_equal,
  sum(sign) filter (where shown and has_video and proxy = 'differs') as proxies_differ,
  sum(sign * proxy_bytes) filter (where shown and has_video and proxy <> 'equal') as proxy_bytes_open from (select *, 1 as sign from new_clips union all select *, -1 as sign from old_clips) as clips
          group by load_id, production_id order by load_id, production_id) as delta
        on conflict (load_id, production_id) do update set clips = s.clips + excluded.clips, media = s.media + excluded.media, length_ms = s.length_ms + excluded.length_ms, playable = s.playable + excluded.playable, videos = s.videos + excluded.videos, proxies_equal = s.proxies_equal + excluded.proxies_equal, proxies_differ = s.proxies_differ + excluded.proxies_differ, proxy_bytes_open = s.proxy_bytes_open + excluded.proxy_bytes_open;
        return null;
      end $$;
CREATE FUNCTION public.count_copy_files_insert() RETURNS trigger
    LANGUAGE plpgsql
    AS $$
      begin
        update mirror set
          files_verified = mirror.files_verified + delta.verified, files_memory = mirror.files_memory + delta.memory,
          files_missing = mirror.files_missing + delta.missing, files_changed = mirror.files_changed + delta.changed,
          files_differ = mirror.files_differ + delta.differ, files_conflict = mirror.files_conflict + delta.conflict,
          size_bytes = mirror.size_bytes + delta.bytes, copied_bytes = mirror.copied_bytes + delta.all_bytes
        from (
          select load_id, volume_id,
            coalesce(sum(sign) filter (where on_card and standing = 'verified'), 0) as verified,
            coalesce(sum(sign) filter (where on_card and standing = 'memory'), 0) as memory,
            coalesce(sum(sign) filter (where on_card and standing = 'missing'), 0) as missing,
            coalesce(sum(sign) filter (where on_card and standing = 'changed'), 0) as changed,
            coalesce(sum(sign) filter (where on_card and standing = 'differs'), 0) as differ,
            coalesce(sum(sign) filter (where on_card and standing = 'conflict'), 0) as conflict,
            coalesce(sum(sign * entry_bytes) filter (where on_card and standing in ('verified', 'memory')), 0) as bytes,
            coalesce(sum(sign * entry_bytes) filter (where standing in ('verified', 'memory')), 0) as all_bytes
          from (select load_id, volume_id, standing, on_card, entry_bytes, 1 as sign from new_files ) as files
          group by load_id, volume_id) as delta
        where mirror.load_id = delta.load_id and mirror.volume_id = delta.volume_id
          and (delta.verified, delta.memory, delta.missing, delta.changed, delta.differ, delta.conflict, delta.bytes, delta.all_bytes)
            is distinct from (0::bigint, 0::bigint, 0::bigint, 0::bigint, 0::bigint, 0::bigint, 0::numeric, 0::numeric);
        return null;
      end $$;
CREATE FUNCTION public.count_copy_files_update() RETURNS trigger
    LANGUAGE plpgsql
    AS $$
      begin
        update mirror set
          files_verified = mirror.files_verified + delta.verified, files_memory = mirror.files_memory + delta.memory,
          files_missing = mirror.files_missing + delta.missing, files_changed = mirror.files_changed + delta.changed,
          files_differ = mirror.files_differ + delta.differ, files_conflict = mirror.files_conflict + delta.conflict,
          size_bytes = mirror.size_bytes + delta.bytes, copied_bytes = mirror.copied_bytes + delta.all_bytes
        from (
          select load_id, volume_id,
            coalesce(sum(sign) filter (where on_card and standing = 'verified'), 0) as verified,
            coalesce(sum(sign) filter (where on_card and standing = 'memory'), 0) as memory,
            coalesce(sum(sign) filter (where on_card and standing = 'missing'), 0) as missing,
            coalesce(sum(sign) filter (where on_card and standing = 'changed'), 0) as changed,
            coalesce(sum(sign) filter (where on_card and standing = 'differs'), 0) as differ,
            coalesce(sum(sign) filter (where on_card and standing = 'conflict'), 0) as conflict,
            coalesce(sum(sign * entry_bytes) filter (where on_card and standing in ('verified', 'memory')), 0) as bytes,
            coalesce(sum(sign * entry_bytes) filter (where standing in ('verified', 'memory')), 0) as all_bytes
          from (select load_id, volume_id, standing, on_card, entry_bytes, 1 as sign from new_files union all select load_id, volume_id, standing, on_card, entry_bytes, -1 from old_files) as files
          group by load_id, volume_id) as delta
        where mirror.load_id = delta.load_id and mirror.volume_id = delta.volume_id
          and (delta.verified, delta.memory, delta.missing, delta.changed, delta.differ, delta.conflict, delta.bytes, delta.all_bytes)
            is distinct from (0::bigint, 0::bigint, 0::bigint, 0::bigint, 0::bigint, 0::bigint, 0::numeric, 0::numeric);
        return null;
      end $$;
CREATE FUNCTION public.count_ledger_bytes() RETURNS trigger
    LANGUAGE plpgsql
    AS $$
    begin
      perform add_production_bytes(new.production_id, new.volume_id, new.byte_class, new.size_bytes);
      return null;
    end $$;
CREATE FUNCTION public.count_mirror_bytes() RETURNS trigger
    LANGUAGE plpgsql
    AS $$
    begin
      perform add_production_bytes((select production_id from load where id = new.load_id), new.volume_id, 'originals', new.copied_bytes - old.copied_bytes);
      return null;
    end $$;
CREATE FUNCTION public.count_output_bytes() RETURNS trigger
    LANGUAGE plpgsql
    AS $$
    begin
      perform add_production_bytes(new.production_id, new.volume_id, 'outputs', new.size_bytes);
      return null;
    end $$;
CREATE FUNCTION public.count_proxy_bytes() RETURNS trigger
    LANGUAGE plpgsql
    AS $$
    begin
      if tg_op = 'UPDATE' then
        perform add_production_bytes((select production_id from clip where id = old.clip_id), old.volume_id, 'generated', -old.size_bytes);
      end if;
      perform add_production_bytes((select production_id from clip where id = new.clip_id), new.volume_id, 'generated', new.size_bytes);
      return null;
    end $$;
CREATE FUNCTION public.follow_entry() RETURNS trigger
    LANGUAGE plpgsql
    AS $$
    begin
      update clip set on_card = new.state = 'on-card',
        shown = member_of is null and (new.state = 'on-card' or (new.state = 'gone' and new.copied))
      where entry_id = new.id;
      return null;
    end $$;
CREATE FUNCTION public.move_proxy_bytes() RETURNS trigger
    LANGUAGE plpgsql
    AS $$
    begin
      perform add_production_bytes(old.production_id, volume_id, 'generated', -size_bytes) from proxy where clip_id = new.id;
      perform add_production_bytes(new.production_id, volume_id, 'generated', size_bytes) from proxy where clip_id = new.id;
      return null;
    end $$;
CREATE FUNCTION public.new_load_summary() RETURNS trigger
    LANGUAGE plpgsql
    AS $$
    begin insert into load_summary (load_id, production_id) values (new.id, new.production_id); return null; end $$;
CREATE FUNCTION public.search_words(name text) RETURNS tsvector
    LANGUAGE sql IMMUTABLE PARALLEL SAFE
    AS $_$
     select to_tsvector('simple', regexp_replace(regexp_replace(name, '.[^.]*$', ''), '[^[:alnum:]]+', ' ', 'g')) $_$;
SET default_tablespace = '';
SET default_table_access_method = heap;
CREATE TABLE public.appeared (
    id uuid DEFAULT gen_random_uuid() NOT NULL,
    host text NOT NULL,
    path text NOT NULL,
    node text NOT NULL,
    name text NOT NULL,
    capacity_bytes bigint NOT NULL,
    free_bytes bigint NOT NULL,
    top_names jsonb NOT NULL,
    volume_uid text,
    marker uuid,
    left_alone boolean DEFAULT false NOT NULL,
    appeared_at timestamp with time zone DEFAULT clock_timestamp() NOT NULL
);
CREATE TABLE public.attempt (
    id uuid DEFAULT gen_random_uuid() NOT NULL,
    task_id uuid NOT NULL,
    host text NOT NULL,
    started_at timestamp with time zone DEFAULT clock_timestamp() NOT NULL,
    ended_at timestamp with time zone,
    how text
);
CREATE TABLE public.bag (
    id uuid DEFAULT gen_random_uuid() NOT NULL,
    production_id uuid NOT NULL,
    deliverable_id uuid NOT NULL,
    volume_id uuid NOT NULL,
    path text NOT NULL,
    file_count integer NOT NULL,
    size_bytes bigint NOT NULL,
    written_at timestamp with time zone DEFAULT clock_timestamp() NOT NULL,
    verified_at timestamp with time zone
);
CREATE TABLE public.bench_card (
    name text NOT NULL,
    folder text NOT NULL,
    story text NOT NULL
);
CREATE TABLE public.bench_device (
    id uuid NOT NULL,
    role text NOT NULL,
    capacity_bytes bigint NOT NULL,
    read_bytes_per_second bigint NOT NULL,
    write_bytes_per_second bigint NOT NULL,
    plugged boolean NOT NULL,
    fault jsonb,
    card text,
    inserted_at timestamp with time zone
);
CREATE TABLE public.camera (
    id uuid DEFAULT gen_random_uuid() NOT NULL,
    name text NOT NULL,
    created_at timestamp with time zone DEFAULT clock_timestamp() NOT NULL,
    put_away_at timestamp with time zone,
    kind text DEFAULT 'camera'::text NOT NULL,
    media text DEFAULT 'cards'::text NOT NULL,
    internal_bytes bigint DEFAULT 0 NOT NULL,
    slots integer DEFAULT 1 NOT NULL,
    spans boolean DEFAULT true NOT NULL,
    battery_minutes integer DEFAULT 0 NOT NULL,
    CONSTRAINT camera_kind_check CHECK ((kind = ANY (ARRAY['camera'::text, 'recorder'::text, 'phone'::text, 'deck'::text]))),
    CONSTRAINT camera_media_check CHECK ((media = ANY (ARRAY['cards'::text, 'internal'::text, 'tape'::text]))),
    CONSTRAINT camera_slots_check CHECK ((slots = ANY (ARRAY[1, 2])))
);
CREATE TABLE public.card (
    id uuid DEFAULT gen_random_uuid() NOT NULL,
    name text NOT NULL,
    capacity_bytes bigint NOT NULL,
    created_at timestamp with time zone DEFAULT clock_timestamp() NOT NULL,
    put_away_at timestamp with time zone,
    bytes_per_second bigint DEFAULT 0 NOT NULL
);
CREATE TABLE public.client (
    id uuid DEFAULT gen_random_uuid() NOT NULL,
    name text NOT NULL,
    put_away_at timestamp with time zone,
    created_at timestamp with time zone DEFAULT clock_timestamp() NOT NULL
);
CREATE TABLE public.clip (
    id uuid DEFAULT gen_random_uuid() NOT NULL,
    load_id uuid NOT NULL,
    entry_id bigint NOT NULL,
    path_text text NOT NULL,
    name text NOT NULL,
    size_bytes bigint NOT NULL,
    sidecars integer NOT NULL,
    probe jsonb,
    trouble text,
    has_picture boolean NOT NULL,
    picture_made boolean NOT NULL,
    production_id uuid NOT NULL,
    cut text,
    on_card boolean DEFAULT true NOT NULL,
    shown boolean DEFAULT true NOT NULL,
    proxy text DEFAULT 'none'::text NOT NULL,
    proxy_bytes bigint DEFAULT 0 NOT NULL,
    sort_path text GENERATED ALWAYS AS ("left"(path_text, 240)) STORED,
    seconds double precision GENERATED ALWAYS AS (COALESCE(((probe ->> 'seconds'::text))::double precision, (0)::double precision)) STORED,
    length_ms bigint GENERATED ALWAYS AS ((round((COALESCE(((probe ->> 'seconds'::text))::numeric, (0)::numeric) * (1000)::numeric)))::bigint) STORED,
    recorded_at text,
    frame_px bigint GENERATED ALWAYS AS (COALESCE((((probe #>> '{video,widthPx}'::text[]))::bigint * ((probe #>> '{video,heightPx}'::text[]))::bigint), (0)::bigint)) STORED,
    rate double precision GENERATED ALWAYS AS (COALESCE((((probe #>> '{video,rate,num}'::text[]))::double precision / NULLIF(((probe #>> '{video,rate,den}'::text[]))::double precision, (0)::double precision)), (0)::double precision)) STORED,
    codec text GENERATED ALWAYS AS (COALESCE((probe #>> '{video,codec}'::text[]), (probe #>> '{audio,codec}'::text[]), ''::text)) STORED,
    wrong boolean GENERATED ALWAYS AS (((trouble IS NOT NULL) OR (cut IS NOT NULL) OR (has_picture AND (NOT picture_made)))) STORED,
    member_of uuid,
    take_id uuid,
    part integer,
    parts integer,
    has_video boolean GENERATED ALWAYS AS ((((probe -> 'video'::text) IS NOT NULL) AND (trouble IS NULL) AND ((probe -> 'sequence'::text) IS NULL))) STORED,
    playable boolean GENERATED ALWAYS AS (((probe IS NOT NULL) AND (trouble IS NULL) AND ((probe -> 'sequence'::text) IS NULL))) STORED,
    filmed_order text,
    shift_ms bigint DEFAULT 0 NOT NULL,
    same_as uuid,
    lens_of uuid,
    CONSTRAINT clip_proxy_check CHECK ((proxy = ANY (ARRAY['none'::text, 'equal'::text, 'differs'::text])))
);
CREATE TABLE public.clip_file (
    clip_id uuid NOT NULL,
    entry_id bigint NOT NULL,
    role text NOT NULL,
    number integer,
    CONSTRAINT clip_file_role_check CHECK ((role = ANY (ARRAY['picture'::text, 'sound'::text, 'frames'::text, 'sidecar'::text, 'camera-proxy'::text, 'thumbnail'::text, 'part'::text, 'lens'::text])))
);
CREATE TABLE public.copy_file (
    load_id uuid NOT NULL,
    volume_id uuid NOT NULL,
    entry_id bigint NOT NULL,
    proof_id bigint NOT NULL,
    proved_at timestamp with time zone NOT NULL,
    on_card boolean NOT NULL,
    entry_bytes bigint NOT NULL,
    placed_at timestamp with time zone NOT NULL,
    listed text DEFAULT 'as-proved'::text NOT NULL,
    absent_at timestamp with time zone,
    standing text NOT NULL,
    CONSTRAINT copy_file_listed_check CHECK ((listed = ANY (ARRAY['as-proved'::text, 'absent'::text, 'changed'::text]))),
    CONSTRAINT copy_file_standing_check CHECK ((standing = ANY (ARRAY['verified'::text, 'memory'::text, 'missing'::text, 'changed'::text, 'differs'::text, 'conflict'::text])))
);
CREATE TABLE public.copy_queue (
    load_id uuid NOT NULL,
    host text NOT NULL,
    volume_ids jsonb NOT NULL,
    plan jsonb,
    place bigint NOT NULL,
    order_id uuid DEFAULT gen_random_uuid() NOT NULL,
    ordered_at timestamp with time zone DEFAULT clock_timestamp() NOT NULL
);
ALTER TABLE public.copy_queue ALTER COLUMN place ADD GENERATED ALWAYS AS IDENTITY (
    SEQUENCE NAME public.copy_queue_place_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.day_sheet (
    production_id uuid NOT NULL,
    place text DEFAULT ''::text NOT NULL,
    calls jsonb DEFAULT '[]'::jsonb NOT NULL
);
CREATE TABLE public.deliverable (
    id uuid DEFAULT gen_random_uuid() NOT NULL,
    production_id uuid NOT NULL,
    clip_id uuid NOT NULL,
    destination_id text NOT NULL,
    crop_window jsonb NOT NULL,
    volume_id uuid NOT NULL,
    path text NOT NULL,
    size_bytes bigint NOT NULL,
    probe jsonb NOT NULL,
    made_at timestamp with time zone DEFAULT clock_timestamp() NOT NULL,
    pass boolean DEFAULT false NOT NULL,
    choice jsonb DEFAULT '{"fields": "frame", "colours": "stated", "soundTrack": null}'::jsonb NOT NULL,
    measured jsonb NOT NULL
);
CREATE TABLE public.journal (
    id bigint NOT NULL,
    at timestamp with time zone DEFAULT clock_timestamp() NOT NULL,
    kind text NOT NULL,
    production_id uuid,
    load_id uuid,
    volume_id uuid,
    clip_id uuid,
    detail jsonb DEFAULT '{}'::jsonb NOT NULL
);
ALTER TABLE public.journal ALTER COLUMN id ADD GENERATED ALWAYS AS IDENTITY (
    SEQUENCE NAME public.event_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.kysely_migration (
    name character varying(255) NOT NULL,
    "timestamp" character varying(255) NOT NULL
);
CREATE TABLE public.kysely_migration_lock (
    id character varying(255) NOT NULL,
    is_locked integer DEFAULT 0 NOT NULL
);
CREATE TABLE public.ledger (
    id bigint NOT NULL,
    production_id uuid NOT NULL,
    volume_id uuid NOT NULL,
    byte_class text NOT NULL,
    size_bytes bigint NOT NULL
);
ALTER TABLE public.ledger ALTER COLUMN id ADD GENERATED ALWAYS AS IDENTITY (
    SEQUENCE NAME public.ledger_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.load (
    id uuid DEFAULT gen_random_uuid() NOT NULL,
    production_id uuid NOT NULL,
    reader_id uuid,
    label text NOT NULL,
    scanned_at timestamp with time zone DEFAULT clock_timestamp() NOT NULL,
    file_count integer NOT NULL,
    size_bytes bigint NOT NULL,
    left_out integer NOT NULL,
    created_at timestamp with time zone DEFAULT clock_timestamp() NOT NULL,
    card_id uuid,
    camera_id uuid,
    look_done boolean DEFAULT true NOT NULL,
    clip_findings jsonb DEFAULT '[]'::jsonb NOT NULL,
    volume_uid text,
    card_by_uid boolean DEFAULT false NOT NULL,
    clock jsonb,
    clock_shift_ms bigint DEFAULT 0 NOT NULL,
    goes_on jsonb,
    read_from_twin boolean DEFAULT false NOT NULL,
    rig_id uuid,
    lens integer,
    rig_odd jsonb,
    no_rig boolean DEFAULT false NOT NULL,
    rig_proposed boolean DEFAULT false NOT NULL,
    CONSTRAINT load_lens CHECK (((rig_id IS NULL) = (lens IS NULL)))
);
CREATE TABLE public.load_entry (
    id bigint NOT NULL,
    load_id uuid NOT NULL,
    path bytea NOT NULL,
    path_text text NOT NULL,
    kind text NOT NULL,
    size_bytes bigint NOT NULL,
    modified_ms double precision NOT NULL,
    state text DEFAULT 'on-card'::text NOT NULL,
    copied boolean DEFAULT false NOT NULL,
    odd boolean DEFAULT false NOT NULL,
    CONSTRAINT load_entry_state_check CHECK ((state = ANY (ARRAY['on-card'::text, 'gone'::text, 'replaced'::text])))
);
ALTER TABLE public.load_entry ALTER COLUMN id ADD GENERATED ALWAYS AS IDENTITY (
    SEQUENCE NAME public.load_entry_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.load_finding (
    load_id uuid NOT NULL,
    kind text NOT NULL,
    files integer NOT NULL,
    print text NOT NULL,
    paths jsonb DEFAULT '[]'::jsonb NOT NULL
);
CREATE TABLE public.load_sample (
    load_id uuid NOT NULL,
    entry_id bigint NOT NULL,
    hash text NOT NULL,
    taken_at timestamp with time zone DEFAULT clock_timestamp() NOT NULL
);
CREATE TABLE public.load_summary (
    load_id uuid NOT NULL,
    clips integer DEFAULT 0 NOT NULL,
    length_ms bigint DEFAULT 0 NOT NULL,
    playable integer DEFAULT 0 NOT NULL,
    videos integer DEFAULT 0 NOT NULL,
    proxies_equal integer DEFAULT 0 NOT NULL,
    proxies_differ integer DEFAULT 0 NOT NULL,
    proxy_bytes_open bigint DEFAULT 0 NOT NULL,
    media integer DEFAULT 0 NOT NULL,
    production_id uuid NOT NULL
);
CREATE TABLE public.mirror (
    load_id uuid NOT NULL,
    volume_id uuid NOT NULL,
    folder text NOT NULL,
    planned_at timestamp with time zone DEFAULT clock_timestamp() NOT NULL,
    present boolean DEFAULT true NOT NULL,
    seen_at timestamp with time zone,
    seen_id bigint,
    files_verified integer DEFAULT 0 NOT NULL,
    files_memory integer DEFAULT 0 NOT NULL,
    files_missing integer DEFAULT 0 NOT NULL,
    files_changed integer DEFAULT 0 NOT NULL,
    files_differ integer DEFAULT 0 NOT NULL,
    files_conflict integer DEFAULT 0 NOT NULL,
    size_bytes bigint DEFAULT 0 NOT NULL,
    copied_bytes bigint DEFAULT 0 NOT NULL
);
CREATE TABLE public.mount (
    volume_id uuid NOT NULL,
    host text NOT NULL,
    path text NOT NULL,
    connected boolean DEFAULT false NOT NULL,
    last_seen timestamp with time zone,
    capacity_bytes bigint,
    free_bytes bigint,
    device jsonb,
    read_bytes_per_second double precision,
    write_bytes_per_second double precision,
    links text
);
CREATE TABLE public.offload (
    id uuid DEFAULT gen_random_uuid() NOT NULL,
    production_id uuid NOT NULL,
    load_id uuid,
    camera_id uuid,
    label text NOT NULL,
    size_bytes bigint NOT NULL,
    seconds double precision,
    exported_bytes bigint,
    at timestamp with time zone DEFAULT clock_timestamp() NOT NULL
);
CREATE TABLE public.plan (
    production_id uuid NOT NULL,
    version integer DEFAULT 0 NOT NULL
);
CREATE TABLE public.planned_camera (
    production_id uuid NOT NULL,
    place integer NOT NULL,
    camera_id uuid NOT NULL,
    both_slots boolean NOT NULL,
    card_bytes bigint NOT NULL,
    card_bytes_per_second bigint NOT NULL
);
CREATE TABLE public.planned_card (
    production_id uuid NOT NULL,
    card_id uuid NOT NULL,
    camera_id uuid NOT NULL,
    place integer NOT NULL
);
CREATE TABLE public.planned_takes (
    production_id uuid NOT NULL,
    place integer NOT NULL,
    camera_id uuid NOT NULL,
    mode_id uuid NOT NULL,
    seconds_per_take integer NOT NULL,
    takes integer NOT NULL,
    angles integer NOT NULL,
    factor double precision NOT NULL
);
CREATE TABLE public.production (
    id uuid DEFAULT gen_random_uuid() NOT NULL,
    title text NOT NULL,
    shoot_on date,
    created_at timestamp with time zone DEFAULT clock_timestamp() NOT NULL,
    folder text NOT NULL,
    time_zone text DEFAULT 'UTC'::text NOT NULL,
    put_away_at timestamp with time zone,
    client_id uuid
);
CREATE TABLE public.production_bytes (
    production_id uuid NOT NULL,
    volume_id uuid NOT NULL,
    byte_class text NOT NULL,
    size_bytes bigint DEFAULT 0 NOT NULL
);
CREATE TABLE public.proof (
    id bigint NOT NULL,
    at timestamp with time zone DEFAULT clock_timestamp() NOT NULL,
    what text NOT NULL,
    outcome text NOT NULL,
    volume_id uuid NOT NULL,
    path bytea NOT NULL,
    algorithm text DEFAULT 'xxh64'::text NOT NULL,
    hash text NOT NULL,
    found text,
    size_bytes bigint,
    modified_ms double precision,
    past_cache boolean NOT NULL,
    placed boolean NOT NULL,
    run_id uuid NOT NULL,
    load_id uuid,
    entry_id bigint,
    clip_id uuid,
    deliverable_id uuid,
    bag_id uuid,
    CONSTRAINT proof_outcome_check CHECK ((outcome = ANY (ARRAY['equal'::text, 'differs'::text, 'conflict'::text]))),
    CONSTRAINT proof_what_check CHECK ((what = ANY (ARRAY['copy'::text, 'proxy'::text, 'deliverable'::text, 'bag'::text])))
);
ALTER TABLE public.proof ALTER COLUMN id ADD GENERATED ALWAYS AS IDENTITY (
    SEQUENCE NAME public.proof_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.proxy (
    id uuid DEFAULT gen_random_uuid() NOT NULL,
    clip_id uuid NOT NULL,
    volume_id uuid NOT NULL,
    path text NOT NULL,
    size_bytes bigint NOT NULL,
    probe jsonb NOT NULL,
    made_at timestamp with time zone DEFAULT clock_timestamp() NOT NULL,
    decoded_frames integer,
    decode_errors integer,
    times_compared integer,
    worst_seconds double precision
);
CREATE TABLE public.proxy_sample (
    clip_id uuid NOT NULL,
    bytes bigint NOT NULL,
    measured_at timestamp with time zone DEFAULT now() NOT NULL
);
CREATE TABLE public.reader (
    id uuid DEFAULT gen_random_uuid() NOT NULL,
    name text NOT NULL,
    root_path text,
    simulated boolean NOT NULL,
    host text NOT NULL,
    created_at timestamp with time zone DEFAULT clock_timestamp() NOT NULL,
    state text DEFAULT 'unreachable'::text NOT NULL,
    card_name text,
    load_id uuid,
    same boolean DEFAULT false NOT NULL,
    difference text,
    device jsonb,
    seen_at timestamp with time zone,
    read_bytes_per_second double precision,
    put_away_at timestamp with time zone,
    capacity_bytes bigint,
    free_bytes bigint,
    volume_uid text,
    habits jsonb DEFAULT '[]'::jsonb NOT NULL,
    print text,
    twin_id uuid
);
CREATE TABLE public.reading (
    id bigint NOT NULL,
    at timestamp with time zone DEFAULT clock_timestamp() NOT NULL,
    load_id uuid NOT NULL,
    volume_id uuid NOT NULL,
    how text NOT NULL,
    seed text,
    files integer NOT NULL,
    size_bytes bigint NOT NULL,
    wrong integer NOT NULL,
    run_id uuid NOT NULL,
    CONSTRAINT reading_how_check CHECK ((how = ANY (ARRAY['whole'::text, 'sample'::text])))
);
ALTER TABLE public.reading ALTER COLUMN id ADD GENERATED ALWAYS AS IDENTITY (
    SEQUENCE NAME public.reading_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.recorded (
    id uuid DEFAULT gen_random_uuid() NOT NULL,
    production_id uuid NOT NULL,
    load_id uuid,
    camera_id uuid,
    label text NOT NULL,
    width_px integer NOT NULL,
    height_px integer NOT NULL,
    rate text NOT NULL,
    codec text NOT NULL,
    clips integer NOT NULL,
    size_bytes bigint NOT NULL,
    seconds double precision NOT NULL,
    at timestamp with time zone DEFAULT clock_timestamp() NOT NULL
);
CREATE TABLE public.recording_mode (
    id uuid DEFAULT gen_random_uuid() NOT NULL,
    camera_id uuid NOT NULL,
    name text NOT NULL,
    figures jsonb NOT NULL,
    put_away_at timestamp with time zone,
    created_at timestamp with time zone DEFAULT clock_timestamp() NOT NULL
);
CREATE TABLE public.review (
    clip_id uuid NOT NULL,
    verdict text,
    ranges jsonb DEFAULT '[]'::jsonb NOT NULL,
    note text DEFAULT ''::text NOT NULL,
    name text,
    shot_id uuid,
    changed_at timestamp with time zone DEFAULT clock_timestamp() NOT NULL,
    folder text,
    CONSTRAINT review_verdict_check CHECK ((verdict = ANY (ARRAY['keep'::text, 'maybe'::text, 'reject'::text])))
);
CREATE TABLE public.rig (
    id uuid DEFAULT gen_random_uuid() NOT NULL,
    production_id uuid NOT NULL,
    name text NOT NULL,
    sentence text DEFAULT ''::text NOT NULL,
    created_at timestamp with time zone DEFAULT clock_timestamp() NOT NULL
);
CREATE TABLE public.said (
    id bigint NOT NULL,
    at timestamp with time zone DEFAULT clock_timestamp() NOT NULL,
    kind text NOT NULL,
    load_id uuid,
    volume_id uuid,
    other_volume_id uuid,
    entry_id bigint,
    against text,
    detail jsonb DEFAULT '{}'::jsonb NOT NULL,
    twin_id uuid,
    CONSTRAINT said_kind_check CHECK ((kind = ANY (ARRAY['answered'::text, 'spot-played'::text, 'formatted'::text, 'different-drives'::text])))
);
ALTER TABLE public.said ALTER COLUMN id ADD GENERATED ALWAYS AS IDENTITY (
    SEQUENCE NAME public.said_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.seen (
    id bigint NOT NULL,
    at timestamp with time zone DEFAULT clock_timestamp() NOT NULL,
    place text NOT NULL,
    load_id uuid NOT NULL,
    volume_id uuid,
    reader_id uuid,
    node text,
    device jsonb,
    print text,
    file_count integer NOT NULL,
    size_bytes bigint NOT NULL,
    shift_ms double precision DEFAULT 0 NOT NULL,
    CONSTRAINT seen_place_check CHECK ((place = ANY (ARRAY['card'::text, 'mirror'::text])))
);
CREATE TABLE public.seen_change (
    seen_id bigint NOT NULL,
    path bytea NOT NULL,
    change text NOT NULL,
    kind text DEFAULT 'file'::text NOT NULL,
    size_bytes bigint,
    modified_ms double precision,
    CONSTRAINT seen_change_change_check CHECK ((change = ANY (ARRAY['there'::text, 'gone'::text])))
);
ALTER TABLE public.seen ALTER COLUMN id ADD GENERATED ALWAYS AS IDENTITY (
    SEQUENCE NAME public.seen_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.setting (
    key text NOT NULL,
    value jsonb NOT NULL
);
CREATE TABLE public.shot (
    id uuid DEFAULT gen_random_uuid() NOT NULL,
    production_id uuid NOT NULL,
    place double precision NOT NULL,
    name text NOT NULL,
    camera_id uuid,
    deliverables jsonb DEFAULT '[]'::jsonb NOT NULL,
    notes text DEFAULT ''::text NOT NULL,
    filmed_at timestamp with time zone,
    created_at timestamp with time zone DEFAULT clock_timestamp() NOT NULL
);
CREATE TABLE public.site (
    id uuid DEFAULT gen_random_uuid() NOT NULL,
    name text NOT NULL,
    kind text DEFAULT 'other'::text NOT NULL,
    created_at timestamp with time zone DEFAULT clock_timestamp() NOT NULL,
    put_away_at timestamp with time zone
);
CREATE TABLE public.sorted_change (
    id bigint NOT NULL,
    run_id uuid NOT NULL,
    production_id uuid NOT NULL,
    volume_id uuid NOT NULL,
    kind text NOT NULL,
    path text NOT NULL,
    from_path text,
    entry_id bigint NOT NULL,
    at timestamp with time zone DEFAULT clock_timestamp() NOT NULL,
    undone boolean DEFAULT false NOT NULL,
    CONSTRAINT sorted_change_kind_check CHECK ((kind = ANY (ARRAY['add'::text, 'move'::text, 'remove'::text])))
);
ALTER TABLE public.sorted_change ALTER COLUMN id ADD GENERATED ALWAYS AS IDENTITY (
    SEQUENCE NAME public.sorted_change_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.sorted_file (
    volume_id uuid NOT NULL,
    path text NOT NULL,
    production_id uuid NOT NULL,
    entry_id bigint NOT NULL,
    size_bytes bigint NOT NULL,
    modified_ms double precision NOT NULL
);
CREATE TABLE public.sorted_view (
    production_id uuid NOT NULL,
    volume_id uuid,
    settings jsonb NOT NULL
);
CREATE TABLE public.task (
    id uuid DEFAULT gen_random_uuid() NOT NULL,
    kind text NOT NULL,
    state text NOT NULL,
    title text NOT NULL,
    production_id uuid,
    load_id uuid,
    input jsonb NOT NULL,
    progress jsonb,
    sentence text,
    troubles jsonb DEFAULT '[]'::jsonb NOT NULL,
    host text NOT NULL,
    boss_id text,
    created_at timestamp with time zone DEFAULT clock_timestamp() NOT NULL,
    ended_at timestamp with time zone,
    subject text NOT NULL,
    idempotency_key text,
    died integer DEFAULT 0 NOT NULL
);
CREATE TABLE public.task_order (
    id bigint NOT NULL,
    task_id uuid NOT NULL,
    task_order text NOT NULL,
    at timestamp with time zone DEFAULT clock_timestamp() NOT NULL,
    obeyed_at timestamp with time zone
);
ALTER TABLE public.task_order ALTER COLUMN id ADD GENERATED ALWAYS AS IDENTITY (
    SEQUENCE NAME public.task_order_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.tool_child (
    attempt_id uuid NOT NULL,
    pid integer NOT NULL,
    started_ticks text NOT NULL
);
CREATE TABLE public.twin (
    id uuid DEFAULT gen_random_uuid() NOT NULL,
    load_id uuid NOT NULL,
    key text NOT NULL,
    name text NOT NULL,
    exact boolean NOT NULL,
    first_seen_at timestamp with time zone DEFAULT clock_timestamp() NOT NULL,
    seen_at timestamp with time zone DEFAULT clock_timestamp() NOT NULL
);
CREATE TABLE public.twin_reading (
    id bigint NOT NULL,
    at timestamp with time zone DEFAULT clock_timestamp() NOT NULL,
    twin_id uuid NOT NULL,
    print text NOT NULL,
    files_equal integer NOT NULL,
    files_memory integer NOT NULL,
    files_wrong integer NOT NULL,
    size_bytes bigint NOT NULL,
    run_id uuid NOT NULL
);
ALTER TABLE public.twin_reading ALTER COLUMN id ADD GENERATED ALWAYS AS IDENTITY (
    SEQUENCE NAME public.twin_reading_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.volume (
    id uuid NOT NULL,
    name text NOT NULL,
    kind text NOT NULL,
    simulated boolean NOT NULL,
    capacity_bytes bigint NOT NULL,
    created_at timestamp with time zone DEFAULT clock_timestamp() NOT NULL,
    site_id uuid NOT NULL,
    put_away_at timestamp with time zone
);
INSERT INTO public.attempt VALUES
	('a4eb4a3e-26bc-455e-b39d-4397a053506f', 'd79839c8-9143-41f1-a33c-623d4f2d5ea0', 'saltmarsh', '2026-11-28 21:36:52.778297+00', '2026-11-28 21:36:55.783+00', 'ended'),
	('5f369984-de17-4ad6-b985-2e98dddae212', 'dc9dbb27-8600-47e9-91bc-bd3898452a3d', 'saltmarsh', '2026-11-28 21:36:56.060128+00', '2026-11-28 21:36:56.806+00', 'ended'),
	('504227db-7fe7-4eff-9e22-236b874046ac', 'bf62e79d-8e93-454a-a03d-43bfa3cf07ec', 'saltmarsh', '2026-11-28 21:36:57.984127+00', '2026-11-28 21:36:58.321+00', 'ended'),
	('80d0b8cc-d771-4630-a102-fe058605d00f', '993562b1-6a31-4f6b-917b-44e7df3387f4', 'saltmarsh', '2026-11-28 21:36:58.375552+00', '2026-11-28 21:36:58.742+00', 'ended'),
	('0d41c76f-c36e-42e0-acb8-e656169e13c4', '4e57970f-1c9d-42b6-a389-25191df6699a', 'saltmarsh', '2026-11-28 21:36:59.070167+00', '2026-11-28 21:36:59.306+00', 'ended'),
	('03289816-c23d-4b8e-98d9-2e6fa0374022', 'b61b17a2-753f-48a8-b5f5-9d19a8048ff5', 'saltmarsh', '2026-11-28 21:36:59.488601+00', '2026-11-28 21:37:00.385+00', 'ended'),
	('12bafcb1-8941-480b-b321-a77ddd3cbb5b', '0c9daa17-b029-4743-a94d-a2292c24f40f', 'saltmarsh', '2026-11-28 21:37:00.51008+00', '2026-11-28 21:37:18.679+00', 'ended'),
	('42880e15-9be3-47e7-bb19-4eda193e3d70', '2228d415-dd7d-4adb-a6cc-745b89a00fd1', 'saltmarsh', '2026-11-28 21:37:18.808807+00', '2026-11-28 21:37:19.054+00', 'ended'),
	('9488f4a1-aac6-4a7d-9226-1f61974a4079', 'cd8a34a2-326d-4340-8173-c2eb65d69293', 'saltmarsh', '2026-11-28 21:37:20.224587+00', '2026-11-28 21:37:21.204+00', 'ended'),
	('4158a370-792b-47bf-838f-1fb0020a45e6', '9ce3dd58-b0b1-4ed5-8389-16bf8f2dd3ea', 'saltmarsh', '2026-11-28 21:37:22.334548+00', '2026-11-28 21:37:23.326+00', 'ended'),
	('6f43571c-3c6e-4631-a496-4b0cc4a1d5b9', 'cdd58470-2bfe-4540-8484-4abf0f16fa10', 'saltmarsh', '2026-11-28 21:37:24.079231+00', '2026-11-28 21:37:25.037+00', 'ended'),
	('6aba3e36-9781-4e97-8b81-727fb4b79a5b', '7d9837d0-6c4f-4be8-bb49-53c1ce73f7d8', 'saltmarsh', '2026-11-28 21:37:25.622217+00', '2026-11-28 21:37:26.652+00', 'ended'),
	('269de778-55f7-4a58-8af5-1439c94a248c', 'd583bf8e-6b51-4f34-9db3-7e74e2ce46a4', 'saltmarsh', '2026-11-28 21:37:26.829369+00', '2026-11-28 21:37:27.509+00', 'ended');
INSERT INTO public.bag VALUES
	('c91a3552-4410-4cc5-a75e-767cfa983ab3', '4ceb652f-6efa-483b-bbe5-b79e94adb5c1', '75e2d54a-d0ba-40b7-b423-ed85d3663482', '139595a2-0410-4d7a-89fa-43a1f4ba0e58', 'Production 1/Shelf/CURL0041 wide watch page', 2, 1698515, '2026-11-28 21:37:18.948967+00', '2026-11-28 21:37:18.947+00');
INSERT INTO public.clip VALUES
	('5b3160b9-3aee-43e3-bfdf-fecc9f9f4bce', '02b44778-5184-42e7-8939-76b4dbb3a0f4', 8, 'DCIM/100CURLW/CURL0044.MP4', 'CURL0044.MP4', 77396, 0, '{"audio": {"codec": "aac", "index": 1, "layout": "mono", "profile": "LC", "seconds": 2, "channels": 1, "isDefault": true, "sampleRateHz": 44100, "startSeconds": 0, "bitsPerSecond": 69671}, "brand": "isom", "video": {"rate": {"den": 1, "num": 25}, "codec": "h264", "index": 0, "level": 12, "chroma": "4:2:0", "frames": 50, "cadence": {"kind": "constant", "average": 25, "offGrid": 0, "measuredFrames": 50}, "profile": "High", "seconds": 2, "widthPx": 320, "bitDepth": 8, "heightPx": 180, "isDefault": true, "fieldOrder": "progressive", "framesFrom": "index", "keyDistance": 50, "pixelFormat": "yuv420p", "codedWidthPx": 320, "sampleAspect": "1:1", "startSeconds": 0, "storedFrames": 50, "bitsPerSecond": 226412, "codedHeightPx": 180, "storedSeconds": 2, "displayWidthPx": 320, "displayHeightPx": 180, "rotationDegrees": 0, "sampleAspectStated": true}, "bounds": [], "others": [], "sounds": [{"codec": "aac", "index": 1, "layout": "mono", "profile": "LC", "seconds": 2, "channels": 1, "isDefault": true, "sampleRateHz": 44100, "startSeconds": 0, "bitsPerSecond": 69671}], "videos": [{"rate": {"den": 1, "num": 25}, "codec": "h264", "index": 0, "level": 12, "chroma": "4:2:0", "frames": 50, "cadence": {"kind": "constant", "average": 25, "offGrid": 0, "measuredFrames": 50}, "profile": "High", "seconds": 2, "widthPx": 320, "bitDepth": 8, "heightPx": 180, "isDefault": true, "fieldOrder": "progressive", "framesFrom": "index", "keyDistance": 50, "pixelFormat": "yuv420p", "codedWidthPx": 320, "sampleAspect": "1:1", "startSeconds": 0, "storedFrames": 50, "bitsPerSecond": 226412, "codedHeightPx": 180, "storedSeconds": 2, "displayWidthPx": 320, "displayHeightPx": 180, "rotationDegrees": 0, "sampleAspectStated": true}], "seconds": 2, "sidecar": [], "version": 2, "container": "mov,mp4,m4a,3gp,3g2,mj2", "sizeBytes": 77396, "indexFirst": true, "startSeconds": 0, "bitsPerSecond": 309584}', NULL, true, true, '04a9cc8b-e622-431f-916f-d25bd9f8ebe5', NULL, true, true, 'none', 207315, DEFAULT, DEFAULT, DEFAULT, '', DEFAULT, DEFAULT, DEFAULT, DEFAULT, NULL, NULL, NULL, NULL, DEFAULT, DEFAULT, ' DCIM/100CURLW/CURL0044.MP4', 0, NULL, NULL),
	('831ecd5a-4d7c-4090-a414-a1dbb12ce02c', '02b44778-5184-42e7-8939-76b4dbb3a0f4', 7, 'DCIM/100CURLW/CURL0042.MP4', 'CURL0042.MP4', 77396, 0, '{"audio": {"codec": "aac", "index": 1, "layout": "mono", "profile": "LC", "seconds": 2, "channels": 1, "isDefault": true, "sampleRateHz": 44100, "startSeconds": 0, "bitsPerSecond": 69671}, "brand": "isom", "video": {"rate": {"den": 1, "num": 25}, "codec": "h264", "index": 0, "level": 12, "chroma": "4:2:0", "frames": 50, "cadence": {"kind": "constant", "average": 25, "offGrid": 0, "measuredFrames": 50}, "profile": "High", "seconds": 2, "widthPx": 320, "bitDepth": 8, "heightPx": 180, "isDefault": true, "fieldOrder": "progressive", "framesFrom": "index", "keyDistance": 50, "pixelFormat": "yuv420p", "codedWidthPx": 320, "sampleAspect": "1:1", "startSeconds": 0, "storedFrames": 50, "bitsPerSecond": 226412, "codedHeightPx": 180, "storedSeconds": 2, "displayWidthPx": 320, "displayHeightPx": 180, "rotationDegrees": 0, "sampleAspectStated": true}, "bounds": [], "others": [], "sounds": [{"codec": "aac", "index": 1, "layout": "mono", "profile": "LC", "seconds": 2, "channels": 1, "isDefault": true, "sampleRateHz": 44100, "startSeconds": 0, "bitsPerSecond": 69671}], "videos": [{"rate": {"den": 1, "num": 25}, "codec": "h264", "index": 0, "level": 12, "chroma": "4:2:0", "frames": 50, "cadence": {"kind": "constant", "average": 25, "offGrid": 0, "measuredFrames": 50}, "profile": "High", "seconds": 2, "widthPx": 320, "bitDepth": 8, "heightPx": 180, "isDefault": true, "fieldOrder": "progressive", "framesFrom": "index", "keyDistance": 50, "pixelFormat": "yuv420p", "codedWidthPx": 320, "sampleAspect": "1:1", "startSeconds": 0, "storedFrames": 50, "bitsPerSecond": 226412, "codedHeightPx": 180, "storedSeconds": 2, "displayWidthPx": 320, "displayHeightPx": 180, "rotationDegrees": 0, "sampleAspectStated": true}], "seconds": 2, "sidecar": [], "version": 2, "container": "mov,mp4,m4a,3gp,3g2,mj2", "sizeBytes": 77396, "indexFirst": true, "startSeconds": 0, "bitsPerSecond": 309584}', NULL, true, true, '4ceb652f-6efa-483b-bbe5-b79e94adb5c1', NULL, true, true, 'none', 207315, DEFAULT, DEFAULT, DEFAULT, '', DEFAULT, DEFAULT, DEFAULT, DEFAULT, NULL, NULL, NULL, NULL, DEFAULT, DEFAULT, ' DCIM/100CURLW/CURL0042.MP4', 0, NULL, NULL),
	('f4cfd563-1454-40de-9c7c-abfe3ed19ef0', '02b44778-5184-42e7-8939-76b4dbb3a0f4', 10, 'DCIM/101CURLW/GX010034.MP4', 'GX010034.MP4', 77324, 0, '{"audio": {"codec": "aac", "index": 1, "layout": "mono", "profile": "LC", "seconds": 2, "channels": 1, "isDefault": true, "sampleRateHz": 44100, "startSeconds": 0, "bitsPerSecond": 69671}, "brand": "isom", "video": {"rate": {"den": 1, "num": 25}, "codec": "h264", "index": 0, "level": 12, "chroma": "4:2:0", "frames": 50, "cadence": {"kind": "constant", "average": 25, "offGrid": 0, "measuredFrames": 50}, "profile": "High", "seconds": 2, "widthPx": 320, "bitDepth": 8, "heightPx": 180, "isDefault": true, "fieldOrder": "progressive", "framesFrom": "index", "keyDistance": 50, "pixelFormat": "yuv420p", "codedWidthPx": 320, "sampleAspect": "1:1", "startSeconds": 0, "storedFrames": 50, "bitsPerSecond": 226412, "codedHeightPx": 180, "storedSeconds": 2, "displayWidthPx": 320, "displayHeightPx": 180, "rotationDegrees": 0, "sampleAspectStated": true}, "bounds": [], "others": [], "sounds": [{"codec": "aac", "index": 1, "layout": "mono", "profile": "LC", "seconds": 2, "channels": 1, "isDefault": true, "sampleRateHz": 44100, "startSeconds": 0, "bitsPerSecond": 69671}], "videos": [{"rate": {"den": 1, "num": 25}, "codec": "h264", "index": 0, "level": 12, "chroma": "4:2:0", "frames": 50, "cadence": {"kind": "constant", "average": 25, "offGrid": 0, "measuredFrames": 50}, "profile": "High", "seconds": 2, "widthPx": 320, "bitDepth": 8, "heightPx": 180, "isDefault": true, "fieldOrder": "progressive", "framesFrom": "index", "keyDistance": 50, "pixelFormat": "yuv420p", "codedWidthPx": 320, "sampleAspect": "1:1", "startSeconds": 0, "storedFrames": 50, "bitsPerSecond": 226412, "codedHeightPx": 180, "storedSeconds": 2, "displayWidthPx": 320, "displayHeightPx": 180, "rotationDegrees": 0, "sampleAspectStated": true}], "seconds": 2, "sidecar": [], "version": 2, "container": "mov,mp4,m4a,3gp,3g2,mj2", "sizeBytes": 77324, "indexFirst": true, "startSeconds": 0, "bitsPerSecond": 309296}', NULL, true, true, '4ceb652f-6efa-483b-bbe5-b79e94adb5c1', NULL, true, true, 'none', 207315, DEFAULT, DEFAULT, DEFAULT, '', DEFAULT, DEFAULT, DEFAULT, DEFAULT, NULL, 'f4cfd563-1454-40de-9c7c-abfe3ed19ef0', 1, 2, DEFAULT, DEFAULT, ' DCIM/101CURLW/GX010034.MP4', 0, NULL, NULL),
	('60416ab8-5651-41db-8ee8-09fd76c469ba', '02b44778-5184-42e7-8939-76b4dbb3a0f4', 13, 'SUB/C0041S03.MP4', 'C0041S03.MP4', 58063, 0, '{"brand": "isom", "video": {"rate": {"den": 1, "num": 25}, "codec": "h264", "index": 0, "level": 12, "chroma": "4:2:0", "frames": 50, "cadence": {"kind": "constant", "average": 25, "offGrid": 0, "measuredFrames": 50}, "profile": "High", "seconds": 2, "widthPx": 320, "bitDepth": 8, "heightPx": 180, "isDefault": true, "fieldOrder": "progressive", "framesFrom": "index", "keyDistance": 50, "pixelFormat": "yuv420p", "codedWidthPx": 320, "sampleAspect": "1:1", "startSeconds": 0, "storedFrames": 50, "bitsPerSecond": 226412, "codedHeightPx": 180, "storedSeconds": 2, "displayWidthPx": 320, "displayHeightPx": 180, "rotationDegrees": 0, "sampleAspectStated": true}, "bounds": [], "others": [], "sounds": [], "videos": [{"rate": {"den": 1, "num": 25}, "codec": "h264", "index": 0, "level": 12, "chroma": "4:2:0", "frames": 50, "cadence": {"kind": "constant", "average": 25, "offGrid": 0, "measuredFrames": 50}, "profile": "High", "seconds": 2, "widthPx": 320, "bitDepth": 8, "heightPx": 180, "isDefault": true, "fieldOrder": "progressive", "framesFrom": "index", "keyDistance": 50, "pixelFormat": "yuv420p", "codedWidthPx": 320, "sampleAspect": "1:1", "startSeconds": 0, "storedFrames": 50, "bitsPerSecond": 226412, "codedHeightPx": 180, "storedSeconds": 2, "displayWidthPx": 320, "displayHeightPx": 180, "rotationDegrees": 0, "sampleAspectStated": true}], "seconds": 2, "sidecar": [], "version": 2, "container": "mov,mp4,m4a,3gp,3g2,mj2", "sizeBytes": 58063, "indexFirst": false, "startSeconds": 0, "bitsPerSecond": 232252}', NULL, true, true, '4ceb652f-6efa-483b-bbe5-b79e94adb5c1', NULL, true, false, 'none', 189850, DEFAULT, DEFAULT, DEFAULT, '', DEFAULT, DEFAULT, DEFAULT, DEFAULT, '434c4442-0a9e-4687-b528-e7eaaf8f6a21', NULL, NULL, NULL, DEFAULT, DEFAULT, ' SUB/C0041S03.MP4', 0, NULL, NULL),
	('434c4442-0a9e-4687-b528-e7eaaf8f6a21', '02b44778-5184-42e7-8939-76b4dbb3a0f4', 2, 'CLIP/C0041.MP4', 'C0041.MP4', 183089, 1, '{"brand": "isom", "video": {"rate": {"den": 1, "num": 25}, "codec": "h264", "index": 0, "level": 30, "chroma": "4:2:0", "frames": 50, "cadence": {"kind": "constant", "average": 25, "offGrid": 0, "measuredFrames": 50}, "profile": "High", "seconds": 2, "widthPx": 640, "bitDepth": 8, "heightPx": 360, "isDefault": true, "fieldOrder": "progressive", "framesFrom": "index", "keyDistance": 50, "pixelFormat": "yuv420p", "codedWidthPx": 640, "sampleAspect": "1:1", "startSeconds": 0, "storedFrames": 50, "bitsPerSecond": 726484, "codedHeightPx": 360, "storedSeconds": 2, "displayWidthPx": 640, "displayHeightPx": 360, "rotationDegrees": 0, "sampleAspectStated": true}, "bounds": [], "others": [], "sounds": [], "videos": [{"rate": {"den": 1, "num": 25}, "codec": "h264", "index": 0, "level": 30, "chroma": "4:2:0", "frames": 50, "cadence": {"kind": "constant", "average": 25, "offGrid": 0, "measuredFrames": 50}, "profile": "High", "seconds": 2, "widthPx": 640, "bitDepth": 8, "heightPx": 360, "isDefault": true, "fieldOrder": "progressive", "framesFrom": "index", "keyDistance": 50, "pixelFormat": "yuv420p", "codedWidthPx": 640, "sampleAspect": "1:1", "startSeconds": 0, "storedFrames": 50, "bitsPerSecond": 726484, "codedHeightPx": 360, "storedSeconds": 2, "displayWidthPx": 640, "displayHeightPx": 360, "rotationDegrees": 0, "sampleAspectStated": true}], "seconds": 2, "sidecar": [{"name": "lens", "value": "35"}], "version": 2, "container": "mov,mp4,m4a,3gp,3g2,mj2", "sizeBytes": 183089, "indexFirst": false, "startSeconds": 0, "bitsPerSecond": 732356}', NULL, true, true, '4ceb652f-6efa-483b-bbe5-b79e94adb5c1', NULL, true, true, 'none', 189850, DEFAULT, DEFAULT, DEFAULT, '', DEFAULT, DEFAULT, DEFAULT, DEFAULT, NULL, NULL, NULL, NULL, DEFAULT, DEFAULT, ' CLIP/C0041.MP4', 0, NULL, NULL),
	('1d754298-dcae-4a51-8779-ace7952c7163', '02b44778-5184-42e7-8939-76b4dbb3a0f4', 11, 'DCIM/101CURLW/GX020034.MP4', 'GX020034.MP4', 77324, 0, '{"audio": {"codec": "aac", "index": 1, "layout": "mono", "profile": "LC", "seconds": 2, "channels": 1, "isDefault": true, "sampleRateHz": 44100, "startSeconds": 0, "bitsPerSecond": 69671}, "brand": "isom", "video": {"rate": {"den": 1, "num": 25}, "codec": "h264", "index": 0, "level": 12, "chroma": "4:2:0", "frames": 50, "cadence": {"kind": "constant", "average": 25, "offGrid": 0, "measuredFrames": 50}, "profile": "High", "seconds": 2, "widthPx": 320, "bitDepth": 8, "heightPx": 180, "isDefault": true, "fieldOrder": "progressive", "framesFrom": "index", "keyDistance": 50, "pixelFormat": "yuv420p", "codedWidthPx": 320, "sampleAspect": "1:1", "startSeconds": 0, "storedFrames": 50, "bitsPerSecond": 226412, "codedHeightPx": 180, "storedSeconds": 2, "displayWidthPx": 320, "displayHeightPx": 180, "rotationDegrees": 0, "sampleAspectStated": true}, "bounds": [], "others": [], "sounds": [{"codec": "aac", "index": 1, "layout": "mono", "profile": "LC", "seconds": 2, "channels": 1, "isDefault": true, "sampleRateHz": 44100, "startSeconds": 0, "bitsPerSecond": 69671}], "videos": [{"rate": {"den": 1, "num": 25}, "codec": "h264", "index": 0, "level": 12, "chroma": "4:2:0", "frames": 50, "cadence": {"kind": "constant", "average": 25, "offGrid": 0, "measuredFrames": 50}, "profile": "High", "seconds": 2, "widthPx": 320, "bitDepth": 8, "heightPx": 180, "isDefault": true, "fieldOrder": "progressive", "framesFrom": "index", "keyDistance": 50, "pixelFormat": "yuv420p", "codedWidthPx": 320, "sampleAspect": "1:1", "startSeconds": 0, "storedFrames": 50, "bitsPerSecond": 226412, "codedHeightPx": 180, "storedSeconds": 2, "displayWidthPx": 320, "displayHeightPx": 180, "rotationDegrees": 0, "sampleAspectStated": true}], "seconds": 2, "sidecar": [], "version": 2, "container": "mov,mp4,m4a,3gp,3g2,mj2", "sizeBytes": 77324, "indexFirst": true, "startSeconds": 0, "bitsPerSecond": 309296}', NULL, true, true, '4ceb652f-6efa-483b-bbe5-b79e94adb5c1', NULL, true, true, 'none', 207315, DEFAULT, DEFAULT, DEFAULT, '', DEFAULT, DEFAULT, DEFAULT, DEFAULT, NULL, 'f4cfd563-1454-40de-9c7c-abfe3ed19ef0', 2, 2, DEFAULT, DEFAULT, ' DCIM/101CURLW/GX020034.MP4', 0, 'f4cfd563-1454-40de-9c7c-abfe3ed19ef0', NULL),
	('b94e3dfa-04e5-4e1d-88ff-41e399440dbc', '02b44778-5184-42e7-8939-76b4dbb3a0f4', 6, 'DCIM/100CURLW/CURL0041.MP4', 'CURL0041.MP4', 77396, 0, '{"audio": {"codec": "aac", "index": 1, "layout": "mono", "profile": "LC", "seconds": 2, "channels": 1, "isDefault": true, "sampleRateHz": 44100, "startSeconds": 0, "bitsPerSecond": 69671}, "brand": "isom", "video": {"rate": {"den": 1, "num": 25}, "codec": "h264", "index": 0, "level": 12, "chroma": "4:2:0", "frames": 50, "cadence": {"kind": "constant", "average": 25, "offGrid": 0, "measuredFrames": 50}, "profile": "High", "seconds": 2, "widthPx": 320, "bitDepth": 8, "heightPx": 180, "isDefault": true, "fieldOrder": "progressive", "framesFrom": "index", "keyDistance": 50, "pixelFormat": "yuv420p", "codedWidthPx": 320, "sampleAspect": "1:1", "startSeconds": 0, "storedFrames": 50, "bitsPerSecond": 226412, "codedHeightPx": 180, "storedSeconds": 2, "displayWidthPx": 320, "displayHeightPx": 180, "rotationDegrees": 0, "sampleAspectStated": true}, "bounds": [], "others": [], "sounds": [{"codec": "aac", "index": 1, "layout": "mono", "profile": "LC", "seconds": 2, "channels": 1, "isDefault": true, "sampleRateHz": 44100, "startSeconds": 0, "bitsPerSecond": 69671}], "videos": [{"rate": {"den": 1, "num": 25}, "codec": "h264", "index": 0, "level": 12, "chroma": "4:2:0", "frames": 50, "cadence": {"kind": "constant", "average": 25, "offGrid": 0, "measuredFrames": 50}, "profile": "High", "seconds": 2, "widthPx": 320, "bitDepth": 8, "heightPx": 180, "isDefault": true, "fieldOrder": "progressive", "framesFrom": "index", "keyDistance": 50, "pixelFormat": "yuv420p", "codedWidthPx": 320, "sampleAspect": "1:1", "startSeconds": 0, "storedFrames": 50, "bitsPerSecond": 226412, "codedHeightPx": 180, "storedSeconds": 2, "displayWidthPx": 320, "displayHeightPx": 180, "rotationDegrees": 0, "sampleAspectStated": true}], "seconds": 2, "sidecar": [], "version": 2, "container": "mov,mp4,m4a,3gp,3g2,mj2", "sizeBytes": 77396, "indexFirst": true, "startSeconds": 0, "bitsPerSecond": 309584}', NULL, true, true, '4ceb652f-6efa-483b-bbe5-b79e94adb5c1', NULL, true, true, 'equal', 207315, DEFAULT, DEFAULT, DEFAULT, '', DEFAULT, DEFAULT, DEFAULT, DEFAULT, NULL, NULL, NULL, NULL, DEFAULT, DEFAULT, ' DCIM/100CURLW/CURL0041.MP4', 0, NULL, NULL),
	('bbb1982f-a35b-47fc-8b4e-dae9a3646523', '3f2c9a79-aa3a-4673-89ba-468697c28dcc', 18, 'DCIM/100POLES/POLE0002.MP4', 'POLE0002.MP4', 62693, 0, '{"brand": "isom", "video": {"rate": {"den": 1, "num": 25}, "codec": "h264", "index": 0, "level": 11, "chroma": "4:2:0", "frames": 101, "cadence": {"kind": "constant", "average": 25, "offGrid": 0, "measuredFrames": 101}, "profile": "High", "seconds": 4.04, "widthPx": 160, "bitDepth": 8, "heightPx": 90, "isDefault": true, "fieldOrder": "progressive", "framesFrom": "index", "keyDistance": 101, "pixelFormat": "yuv420p", "codedWidthPx": 160, "sampleAspect": "1:1", "startSeconds": 0, "storedFrames": 101, "bitsPerSecond": 120059, "codedHeightPx": 90, "storedSeconds": 4.04, "displayWidthPx": 160, "displayHeightPx": 90, "rotationDegrees": 0, "sampleAspectStated": true}, "bounds": [], "others": [], "sounds": [], "videos": [{"rate": {"den": 1, "num": 25}, "codec": "h264", "index": 0, "level": 11, "chroma": "4:2:0", "frames": 101, "cadence": {"kind": "constant", "average": 25, "offGrid": 0, "measuredFrames": 101}, "profile": "High", "seconds": 4.04, "widthPx": 160, "bitDepth": 8, "heightPx": 90, "isDefault": true, "fieldOrder": "progressive", "framesFrom": "index", "keyDistance": 101, "pixelFormat": "yuv420p", "codedWidthPx": 160, "sampleAspect": "1:1", "startSeconds": 0, "storedFrames": 101, "bitsPerSecond": 120059, "codedHeightPx": 90, "storedSeconds": 4.04, "displayWidthPx": 160, "displayHeightPx": 90, "rotationDegrees": 0, "sampleAspectStated": true}], "seconds": 4.04, "sidecar": [], "version": 2, "container": "mov,mp4,m4a,3gp,3g2,mj2", "sizeBytes": 62693, "indexFirst": false, "startSeconds": 0, "bitsPerSecond": 124144}', NULL, true, true, '4ceb652f-6efa-483b-bbe5-b79e94adb5c1', NULL, true, true, 'none', 318217, DEFAULT, DEFAULT, DEFAULT, '', DEFAULT, DEFAULT, DEFAULT, DEFAULT, NULL, NULL, NULL, NULL, DEFAULT, DEFAULT, ' DCIM/100POLES/POLE0002.MP4', 0, NULL, NULL),
	('d404c4e8-c91c-4246-83d0-2a7eec6e7d59', '3f2c9a79-aa3a-4673-89ba-468697c28dcc', 17, 'DCIM/100POLES/POLE0001.MP4', 'POLE0001.MP4', 30827, 0, '{"brand": "isom", "video": {"rate": {"den": 1, "num": 25}, "codec": "h264", "index": 0, "level": 11, "chroma": "4:2:0", "frames": 51, "cadence": {"kind": "constant", "average": 25, "offGrid": 0, "measuredFrames": 51}, "profile": "High", "seconds": 2.04, "widthPx": 160, "bitDepth": 8, "heightPx": 90, "isDefault": true, "fieldOrder": "progressive", "framesFrom": "index", "keyDistance": 51, "pixelFormat": "yuv420p", "codedWidthPx": 160, "sampleAspect": "1:1", "startSeconds": 0, "storedFrames": 51, "bitsPerSecond": 115121, "codedHeightPx": 90, "storedSeconds": 2.04, "displayWidthPx": 160, "displayHeightPx": 90, "rotationDegrees": 0, "sampleAspectStated": true}, "bounds": [], "others": [], "sounds": [], "videos": [{"rate": {"den": 1, "num": 25}, "codec": "h264", "index": 0, "level": 11, "chroma": "4:2:0", "frames": 51, "cadence": {"kind": "constant", "average": 25, "offGrid": 0, "measuredFrames": 51}, "profile": "High", "seconds": 2.04, "widthPx": 160, "bitDepth": 8, "heightPx": 90, "isDefault": true, "fieldOrder": "progressive", "framesFrom": "index", "keyDistance": 51, "pixelFormat": "yuv420p", "codedWidthPx": 160, "sampleAspect": "1:1", "startSeconds": 0, "storedFrames": 51, "bitsPerSecond": 115121, "codedHeightPx": 90, "storedSeconds": 2.04, "displayWidthPx": 160, "displayHeightPx": 90, "rotationDegrees": 0, "sampleAspectStated": true}], "seconds": 2.04, "sidecar": [], "version": 2, "container": "mov,mp4,m4a,3gp,3g2,mj2", "sizeBytes": 30827, "indexFirst": false, "startSeconds": 0, "bitsPerSecond": 120890}', NULL, true, true, '4ceb652f-6efa-483b-bbe5-b79e94adb5c1', NULL, true, true, 'none', 192367, DEFAULT, DEFAULT, DEFAULT, '', DEFAULT, DEFAULT, DEFAULT, DEFAULT, NULL, NULL, NULL, NULL, DEFAULT, DEFAULT, ' DCIM/100POLES/POLE0001.MP4', 0, NULL, NULL),
	('e20d43b2-05c8-481c-8d47-367e36089873', '5082b61d-61a2-4b2b-98f0-ee36dbb5e9a7', 21, 'DCIM/100POLES/POLE0001.MP4', 'POLE0001.MP4', 31361, 0, '{"brand": "isom", "video": {"rate": {"den": 1, "num": 25}, "codec": "h264", "index": 0, "level": 11, "chroma": "4:2:0", "frames": 52, "cadence": {"kind": "constant", "average": 25, "offGrid": 0, "measuredFrames": 52}, "profile": "High", "seconds": 2.08, "widthPx": 160, "bitDepth": 8, "heightPx": 90, "isDefault": true, "fieldOrder": "progressive", "framesFrom": "index", "keyDistance": 52, "pixelFormat": "yuv420p", "codedWidthPx": 160, "sampleAspect": "1:1", "startSeconds": 0, "storedFrames": 52, "bitsPerSecond": 114946, "codedHeightPx": 90, "storedSeconds": 2.08, "displayWidthPx": 160, "displayHeightPx": 90, "rotationDegrees": 0, "sampleAspectStated": true}, "bounds": [], "others": [], "sounds": [], "videos": [{"rate": {"den": 1, "num": 25}, "codec": "h264", "index": 0, "level": 11, "chroma": "4:2:0", "frames": 52, "cadence": {"kind": "constant", "average": 25, "offGrid": 0, "measuredFrames": 52}, "profile": "High", "seconds": 2.08, "widthPx": 160, "bitDepth": 8, "heightPx": 90, "isDefault": true, "fieldOrder": "progressive", "framesFrom": "index", "keyDistance": 52, "pixelFormat": "yuv420p", "codedWidthPx": 160, "sampleAspect": "1:1", "startSeconds": 0, "storedFrames": 52, "bitsPerSecond": 114946, "codedHeightPx": 90, "storedSeconds": 2.08, "displayWidthPx": 160, "displayHeightPx": 90, "rotationDegrees": 0, "sampleAspectStated": true}], "seconds": 2.08, "sidecar": [], "version": 2, "container": "mov,mp4,m4a,3gp,3g2,mj2", "sizeBytes": 31361, "indexFirst": false, "startSeconds": 0, "bitsPerSecond": 120619}', NULL, true, true, '4ceb652f-6efa-483b-bbe5-b79e94adb5c1', NULL, true, true, 'none', 194884, DEFAULT, DEFAULT, DEFAULT, '', DEFAULT, DEFAULT, DEFAULT, DEFAULT, NULL, NULL, NULL, NULL, DEFAULT, DEFAULT, ' DCIM/100POLES/POLE0001.MP4', 0, NULL, 'd404c4e8-c91c-4246-83d0-2a7eec6e7d59'),
	('4be47ea5-9038-4e12-96f4-dd836c6e65ab', '2cb2ba17-c900-4f38-884c-91cfc4b5ae7c', 25, 'DCIM/100POLES/POLE0001.MP4', 'POLE0001.MP4', 32080, 0, '{"brand": "isom", "video": {"rate": {"den": 1, "num": 25}, "codec": "h264", "index": 0, "level": 11, "chroma": "4:2:0", "frames": 53, "cadence": {"kind": "constant", "average": 25, "offGrid": 0, "measuredFrames": 53}, "profile": "High", "seconds": 2.12, "widthPx": 160, "bitDepth": 8, "heightPx": 90, "isDefault": true, "fieldOrder": "progressive", "framesFrom": "index", "keyDistance": 53, "pixelFormat": "yuv420p", "codedWidthPx": 160, "sampleAspect": "1:1", "startSeconds": 0, "storedFrames": 53, "bitsPerSecond": 115415, "codedHeightPx": 90, "storedSeconds": 2.12, "displayWidthPx": 160, "displayHeightPx": 90, "rotationDegrees": 0, "sampleAspectStated": true}, "bounds": [], "others": [], "sounds": [], "videos": [{"rate": {"den": 1, "num": 25}, "codec": "h264", "index": 0, "level": 11, "chroma": "4:2:0", "frames": 53, "cadence": {"kind": "constant", "average": 25, "offGrid": 0, "measuredFrames": 53}, "profile": "High", "seconds": 2.12, "widthPx": 160, "bitDepth": 8, "heightPx": 90, "isDefault": true, "fieldOrder": "progressive", "framesFrom": "index", "keyDistance": 53, "pixelFormat": "yuv420p", "codedWidthPx": 160, "sampleAspect": "1:1", "startSeconds": 0, "storedFrames": 53, "bitsPerSecond": 115415, "codedHeightPx": 90, "storedSeconds": 2.12, "displayWidthPx": 160, "displayHeightPx": 90, "rotationDegrees": 0, "sampleAspectStated": true}], "seconds": 2.12, "sidecar": [], "version": 2, "container": "mov,mp4,m4a,3gp,3g2,mj2", "sizeBytes": 32080, "indexFirst": false, "startSeconds": 0, "bitsPerSecond": 121056}', NULL, true, true, '4ceb652f-6efa-483b-bbe5-b79e94adb5c1', NULL, true, true, 'none', 197401, DEFAULT, DEFAULT, DEFAULT, '', DEFAULT, DEFAULT, DEFAULT, DEFAULT, NULL, NULL, NULL, NULL, DEFAULT, DEFAULT, ' DCIM/100POLES/POLE0001.MP4', 0, NULL, 'd404c4e8-c91c-4246-83d0-2a7eec6e7d59'),
	('355174c9-3cf1-45c4-8952-96e07ae75b71', '5082b61d-61a2-4b2b-98f0-ee36dbb5e9a7', 22, 'DCIM/100POLES/POLE0002.MP4', 'POLE0002.MP4', 63328, 0, '{"brand": "isom", "video": {"rate": {"den": 1, "num": 25}, "codec": "h264", "index": 0, "level": 11, "chroma": "4:2:0", "frames": 102, "cadence": {"kind": "constant", "average": 25, "offGrid": 0, "measuredFrames": 102}, "profile": "High", "seconds": 4.08, "widthPx": 160, "bitDepth": 8, "heightPx": 90, "isDefault": true, "fieldOrder": "progressive", "framesFrom": "index", "keyDistance": 102, "pixelFormat": "yuv420p", "codedWidthPx": 160, "sampleAspect": "1:1", "startSeconds": 0, "storedFrames": 102, "bitsPerSecond": 120088, "codedHeightPx": 90, "storedSeconds": 4.08, "displayWidthPx": 160, "displayHeightPx": 90, "rotationDegrees": 0, "sampleAspectStated": true}, "bounds": [], "others": [], "sounds": [], "videos": [{"rate": {"den": 1, "num": 25}, "codec": "h264", "index": 0, "level": 11, "chroma": "4:2:0", "frames": 102, "cadence": {"kind": "constant", "average": 25, "offGrid": 0, "measuredFrames": 102}, "profile": "High", "seconds": 4.08, "widthPx": 160, "bitDepth": 8, "heightPx": 90, "isDefault": true, "fieldOrder": "progressive", "framesFrom": "index", "keyDistance": 102, "pixelFormat": "yuv420p", "codedWidthPx": 160, "sampleAspect": "1:1", "startSeconds": 0, "storedFrames": 102, "bitsPerSecond": 120088, "codedHeightPx": 90, "storedSeconds": 4.08, "displayWidthPx": 160, "displayHeightPx": 90, "rotationDegrees": 0, "sampleAspectStated": true}], "seconds": 4.08, "sidecar": [], "version": 2, "container": "mov,mp4,m4a,3gp,3g2,mj2", "sizeBytes": 63328, "indexFirst": false, "startSeconds": 0, "bitsPerSecond": 124172}', NULL, true, true, '4ceb652f-6efa-483b-bbe5-b79e94adb5c1', NULL, true, true, 'none', 320734, DEFAULT, DEFAULT, DEFAULT, '', DEFAULT, DEFAULT, DEFAULT, DEFAULT, NULL, NULL, NULL, NULL, DEFAULT, DEFAULT, ' DCIM/100POLES/POLE0002.MP4', 0, NULL, 'bbb1982f-a35b-47fc-8b4e-dae9a3646523'),
	('51901553-c827-4486-b71b-28bbea2f5ff0', '2cb2ba17-c900-4f38-884c-91cfc4b5ae7c', 26, 'DCIM/100POLES/POLE0002.MP4', 'POLE0002.MP4', 64012, 0, '{"brand": "isom", "video": {"rate": {"den": 1, "num": 25}, "codec": "h264", "index": 0, "level": 11, "chroma": "4:2:0", "frames": 103, "cadence": {"kind": "constant", "average": 25, "offGrid": 0, "measuredFrames": 103}, "profile": "High", "seconds": 4.12, "widthPx": 160, "bitDepth": 8, "heightPx": 90, "isDefault": true, "fieldOrder": "progressive", "framesFrom": "index", "keyDistance": 103, "pixelFormat": "yuv420p", "codedWidthPx": 160, "sampleAspect": "1:1", "startSeconds": 0, "storedFrames": 103, "bitsPerSecond": 120227, "codedHeightPx": 90, "storedSeconds": 4.12, "displayWidthPx": 160, "displayHeightPx": 90, "rotationDegrees": 0, "sampleAspectStated": true}, "bounds": [], "others": [], "sounds": [], "videos": [{"rate": {"den": 1, "num": 25}, "codec": "h264", "index": 0, "level": 11, "chroma": "4:2:0", "frames": 103, "cadence": {"kind": "constant", "average": 25, "offGrid": 0, "measuredFrames": 103}, "profile": "High", "seconds": 4.12, "widthPx": 160, "bitDepth": 8, "heightPx": 90, "isDefault": true, "fieldOrder": "progressive", "framesFrom": "index", "keyDistance": 103, "pixelFormat": "yuv420p", "codedWidthPx": 160, "sampleAspect": "1:1", "startSeconds": 0, "storedFrames": 103, "bitsPerSecond": 120227, "codedHeightPx": 90, "storedSeconds": 4.12, "displayWidthPx": 160, "displayHeightPx": 90, "rotationDegrees": 0, "sampleAspectStated": true}], "seconds": 4.12, "sidecar": [], "version": 2, "container": "mov,mp4,m4a,3gp,3g2,mj2", "sizeBytes": 64012, "indexFirst": false, "startSeconds": 0, "bitsPerSecond": 124295}', NULL, true, true, '4ceb652f-6efa-483b-bbe5-b79e94adb5c1', NULL, true, true, 'none', 323251, DEFAULT, DEFAULT, DEFAULT, '', DEFAULT, DEFAULT, DEFAULT, DEFAULT, NULL, NULL, NULL, NULL, DEFAULT, DEFAULT, ' DCIM/100POLES/POLE0002.MP4', 0, NULL, 'bbb1982f-a35b-47fc-8b4e-dae9a3646523'),
	('83e1da3e-cabe-4f28-b54a-f1377e837177', '27aa350c-8fe9-49a2-9128-b1a30d20df9b', 29, 'DCIM/100CURLW/CURL0051.MP4', 'CURL0051.MP4', 77396, 0, '{"audio": {"codec": "aac", "index": 1, "layout": "mono", "profile": "LC", "seconds": 2, "channels": 1, "isDefault": true, "sampleRateHz": 44100, "startSeconds": 0, "bitsPerSecond": 69671}, "brand": "isom", "video": {"rate": {"den": 1, "num": 25}, "codec": "h264", "index": 0, "level": 12, "chroma": "4:2:0", "frames": 50, "cadence": {"kind": "constant", "average": 25, "offGrid": 0, "measuredFrames": 50}, "profile": "High", "seconds": 2, "widthPx": 320, "bitDepth": 8, "heightPx": 180, "isDefault": true, "fieldOrder": "progressive", "framesFrom": "index", "keyDistance": 50, "pixelFormat": "yuv420p", "codedWidthPx": 320, "sampleAspect": "1:1", "startSeconds": 0, "storedFrames": 50, "bitsPerSecond": 226412, "codedHeightPx": 180, "storedSeconds": 2, "displayWidthPx": 320, "displayHeightPx": 180, "rotationDegrees": 0, "sampleAspectStated": true}, "bounds": [], "others": [], "sounds": [{"codec": "aac", "index": 1, "layout": "mono", "profile": "LC", "seconds": 2, "channels": 1, "isDefault": true, "sampleRateHz": 44100, "startSeconds": 0, "bitsPerSecond": 69671}], "videos": [{"rate": {"den": 1, "num": 25}, "codec": "h264", "index": 0, "level": 12, "chroma": "4:2:0", "frames": 50, "cadence": {"kind": "constant", "average": 25, "offGrid": 0, "measuredFrames": 50}, "profile": "High", "seconds": 2, "widthPx": 320, "bitDepth": 8, "heightPx": 180, "isDefault": true, "fieldOrder": "progressive", "framesFrom": "index", "keyDistance": 50, "pixelFormat": "yuv420p", "codedWidthPx": 320, "sampleAspect": "1:1", "startSeconds": 0, "storedFrames": 50, "bitsPerSecond": 226412, "codedHeightPx": 180, "storedSeconds": 2, "displayWidthPx": 320, "displayHeightPx": 180, "rotationDegrees": 0, "sampleAspectStated": true}], "seconds": 2, "sidecar": [], "version": 2, "container": "mov,mp4,m4a,3gp,3g2,mj2", "sizeBytes": 77396, "indexFirst": true, "startSeconds": 0, "bitsPerSecond": 309584}', NULL, true, true, '4ceb652f-6efa-483b-bbe5-b79e94adb5c1', NULL, true, true, 'none', 207315, DEFAULT, DEFAULT, DEFAULT, '', DEFAULT, DEFAULT, DEFAULT, DEFAULT, NULL, NULL, NULL, NULL, DEFAULT, DEFAULT, ' DCIM/100CURLW/CURL0051.MP4', 0, NULL, NULL),
	('ac303f1b-4c4e-468b-8098-3a2f9c58bf82', '27aa350c-8fe9-49a2-9128-b1a30d20df9b', 30, 'DCIM/100CURLW/CURL0052.MP4', 'CURL0052.MP4', 77396, 0, '{"audio": {"codec": "aac", "index": 1, "layout": "mono", "profile": "LC", "seconds": 2, "channels": 1, "isDefault": true, "sampleRateHz": 44100, "startSeconds": 0, "bitsPerSecond": 69671}, "brand": "isom", "video": {"rate": {"den": 1, "num": 25}, "codec": "h264", "index": 0, "level": 12, "chroma": "4:2:0", "frames": 50, "cadence": {"kind": "constant", "average": 25, "offGrid": 0, "measuredFrames": 50}, "profile": "High", "seconds": 2, "widthPx": 320, "bitDepth": 8, "heightPx": 180, "isDefault": true, "fieldOrder": "progressive", "framesFrom": "index", "keyDistance": 50, "pixelFormat": "yuv420p", "codedWidthPx": 320, "sampleAspect": "1:1", "startSeconds": 0, "storedFrames": 50, "bitsPerSecond": 226412, "codedHeightPx": 180, "storedSeconds": 2, "displayWidthPx": 320, "displayHeightPx": 180, "rotationDegrees": 0, "sampleAspectStated": true}, "bounds": [], "others": [], "sounds": [{"codec": "aac", "index": 1, "layout": "mono", "profile": "LC", "seconds": 2, "channels": 1, "isDefault": true, "sampleRateHz": 44100, "startSeconds": 0, "bitsPerSecond": 69671}], "videos": [{"rate": {"den": 1, "num": 25}, "codec": "h264", "index": 0, "level": 12, "chroma": "4:2:0", "frames": 50, "cadence": {"kind": "constant", "average": 25, "offGrid": 0, "measuredFrames": 50}, "profile": "High", "seconds": 2, "widthPx": 320, "bitDepth": 8, "heightPx": 180, "isDefault": true, "fieldOrder": "progressive", "framesFrom": "index", "keyDistance": 50, "pixelFormat": "yuv420p", "codedWidthPx": 320, "sampleAspect": "1:1", "startSeconds": 0, "storedFrames": 50, "bitsPerSecond": 226412, "codedHeightPx": 180, "storedSeconds": 2, "displayWidthPx": 320, "displayHeightPx": 180, "rotationDegrees": 0, "sampleAspectStated": true}], "seconds": 2, "sidecar": [], "version": 2, "container": "mov,mp4,m4a,3gp,3g2,mj2", "sizeBytes": 77396, "indexFirst": true, "startSeconds": 0, "bitsPerSecond": 309584}', NULL, true, true, '4ceb652f-6efa-483b-bbe5-b79e94adb5c1', NULL, true, true, 'none', 207315, DEFAULT, DEFAULT, DEFAULT, '', DEFAULT, DEFAULT, DEFAULT, DEFAULT, NULL, NULL, NULL, NULL, DEFAULT, DEFAULT, ' DCIM/100CURLW/CURL0052.MP4', 0, NULL, NULL);
INSERT INTO public.clip_file VALUES
	('434c4442-0a9e-4687-b528-e7eaaf8f6a21', 2, 'picture', NULL),
	('434c4442-0a9e-4687-b528-e7eaaf8f6a21', 3, 'sidecar', NULL),
	('434c4442-0a9e-4687-b528-e7eaaf8f6a21', 13, 'camera-proxy', NULL),
	('b94e3dfa-04e5-4e1d-88ff-41e399440dbc', 6, 'picture', NULL),
	('831ecd5a-4d7c-4090-a414-a1dbb12ce02c', 7, 'picture', NULL),
	('5b3160b9-3aee-43e3-bfdf-fecc9f9f4bce', 8, 'picture', NULL),
	('f4cfd563-1454-40de-9c7c-abfe3ed19ef0', 10, 'picture', NULL),
	('1d754298-dcae-4a51-8779-ace7952c7163', 11, 'picture', NULL),
	('d404c4e8-c91c-4246-83d0-2a7eec6e7d59', 17, 'picture', NULL),
	('bbb1982f-a35b-47fc-8b4e-dae9a3646523', 18, 'picture', NULL),
	('e20d43b2-05c8-481c-8d47-367e36089873', 21, 'picture', NULL),
	('355174c9-3cf1-45c4-8952-96e07ae75b71', 22, 'picture', NULL),
	('4be47ea5-9038-4e12-96f4-dd836c6e65ab', 25, 'picture', NULL),
	('51901553-c827-4486-b71b-28bbea2f5ff0', 26, 'picture', NULL),
	('83e1da3e-cabe-4f28-b54a-f1377e837177', 29, 'picture', NULL),
	('ac303f1b-4c4e-468b-8098-3a2f9c58bf82', 30, 'picture', NULL);
INSERT INTO public.copy_file VALUES
	('02b44778-5184-42e7-8939-76b4dbb3a0f4', 'dbbc3ae7-7a16-4f64-b195-b97ce1dd4438', 2, 10, '2026-11-28 21:36:56.514623+00', true, 183089, '2026-11-28 21:36:56.514623+00', 'as-proved', NULL, 'verified'),
	('02b44778-5184-42e7-8939-76b4dbb3a0f4', 'dbbc3ae7-7a16-4f64-b195-b97ce1dd4438', 3, 11, '2026-11-28 21:36:56.514717+00', true, 17, '2026-11-28 21:36:56.514717+00', 'as-proved', NULL, 'verified'),
	('02b44778-5184-42e7-8939-76b4dbb3a0f4', 'dbbc3ae7-7a16-4f64-b195-b97ce1dd4438', 6, 12, '2026-11-28 21:36:56.514742+00', true, 77396, '2026-11-28 21:36:56.514742+00', 'as-proved', NULL, 'verified'),
	('02b44778-5184-42e7-8939-76b4dbb3a0f4', 'dbbc3ae7-7a16-4f64-b195-b97ce1dd4438', 7, 13, '2026-11-28 21:36:56.514754+00', true, 77396, '2026-11-28 21:36:56.514754+00', 'as-proved', NULL, 'verified'),
	('02b44778-5184-42e7-8939-76b4dbb3a0f4', 'dbbc3ae7-7a16-4f64-b195-b97ce1dd4438', 8, 14, '2026-11-28 21:36:56.514764+00', true, 77396, '2026-11-28 21:36:56.514764+00', 'as-proved', NULL, 'verified'),
	('02b44778-5184-42e7-8939-76b4dbb3a0f4', 'dbbc3ae7-7a16-4f64-b195-b97ce1dd4438', 10, 15, '2026-11-28 21:36:56.514773+00', true, 77324, '2026-11-28 21:36:56.514773+00', 'as-proved', NULL, 'verified'),
	('02b44778-5184-42e7-8939-76b4dbb3a0f4', 'dbbc3ae7-7a16-4f64-b195-b97ce1dd4438', 11, 16, '2026-11-28 21:36:56.514784+00', true, 77324, '2026-11-28 21:36:56.514784+00', 'as-proved', NULL, 'verified'),
	('02b44778-5184-42e7-8939-76b4dbb3a0f4', 'dbbc3ae7-7a16-4f64-b195-b97ce1dd4438', 13, 17, '2026-11-28 21:36:56.514794+00', true, 58063, '2026-11-28 21:36:56.514794+00', 'as-proved', NULL, 'verified'),
	('02b44778-5184-42e7-8939-76b4dbb3a0f4', 'dbbc3ae7-7a16-4f64-b195-b97ce1dd4438', 14, 18, '2026-11-28 21:36:56.514804+00', true, 4, '2026-11-28 21:36:56.514804+00', 'as-proved', NULL, 'verified'),
	('02b44778-5184-42e7-8939-76b4dbb3a0f4', '139595a2-0410-4d7a-89fa-43a1f4ba0e58', 2, 19, '2026-11-28 21:36:58.481316+00', true, 183089, '2026-11-28 21:36:56.492437+00', 'as-proved', NULL, 'verified'),
	('02b44778-5184-42e7-8939-76b4dbb3a0f4', '139595a2-0410-4d7a-89fa-43a1f4ba0e58', 3, 20, '2026-11-28 21:36:58.481441+00', true, 17, '2026-11-28 21:36:56.492723+00', 'as-proved', NULL, 'verified'),
	('02b44778-5184-42e7-8939-76b4dbb3a0f4', '139595a2-0410-4d7a-89fa-43a1f4ba0e58', 6, 21, '2026-11-28 21:36:58.481455+00', true, 77396, '2026-11-28 21:36:56.492742+00', 'as-proved', NULL, 'verified'),
	('02b44778-5184-42e7-8939-76b4dbb3a0f4', '139595a2-0410-4d7a-89fa-43a1f4ba0e58', 7, 22, '2026-11-28 21:36:58.481466+00', true, 77396, '2026-11-28 21:36:56.492752+00', 'as-proved', NULL, 'verified'),
	('02b44778-5184-42e7-8939-76b4dbb3a0f4', '139595a2-0410-4d7a-89fa-43a1f4ba0e58', 8, 23, '2026-11-28 21:36:58.481491+00', true, 77396, '2026-11-28 21:36:56.492766+00', 'as-proved', NULL, 'verified'),
	('02b44778-5184-42e7-8939-76b4dbb3a0f4', '139595a2-0410-4d7a-89fa-43a1f4ba0e58', 10, 24, '2026-11-28 21:36:58.481502+00', true, 77324, '2026-11-28 21:36:56.492775+00', 'as-proved', NULL, 'verified'),
	('02b44778-5184-42e7-8939-76b4dbb3a0f4', '139595a2-0410-4d7a-89fa-43a1f4ba0e58', 11, 25, '2026-11-28 21:36:58.481512+00', true, 77324, '2026-11-28 21:36:56.492783+00', 'as-proved', NULL, 'verified'),
	('02b44778-5184-42e7-8939-76b4dbb3a0f4', '139595a2-0410-4d7a-89fa-43a1f4ba0e58', 13, 26, '2026-11-28 21:36:58.481521+00', true, 58063, '2026-11-28 21:36:56.492791+00', 'as-proved', NULL, 'verified'),
	('02b44778-5184-42e7-8939-76b4dbb3a0f4', '139595a2-0410-4d7a-89fa-43a1f4ba0e58', 14, 27, '2026-11-28 21:36:58.481531+00', true, 4, '2026-11-28 21:36:56.4928+00', 'as-proved', NULL, 'verified'),
	('27aa350c-8fe9-49a2-9128-b1a30d20df9b', '139595a2-0410-4d7a-89fa-43a1f4ba0e58', 29, 32, '2026-11-28 21:37:27.223673+00', true, 77396, '2026-11-28 21:37:27.223673+00', 'as-proved', NULL, 'verified'),
	('27aa350c-8fe9-49a2-9128-b1a30d20df9b', 'dbbc3ae7-7a16-4f64-b195-b97ce1dd4438', 29, 34, '2026-11-28 21:37:27.253305+00', true, 77396, '2026-11-28 21:37:27.253305+00', 'as-proved', NULL, 'verified'),
	('27aa350c-8fe9-49a2-9128-b1a30d20df9b', 'dbbc3ae7-7a16-4f64-b195-b97ce1dd4438', 30, 35, '2026-11-28 21:37:27.253408+00', true, 77396, '2026-11-28 21:37:27.253408+00', 'as-proved', NULL, 'verified'),
	('27aa350c-8fe9-49a2-9128-b1a30d20df9b', '139595a2-0410-4d7a-89fa-43a1f4ba0e58', 30, 33, '2026-11-28 21:37:27.223806+00', true, 77396, '2026-11-28 21:37:27.223806+00', 'absent', '2026-11-28 21:37:27.944+00', 'missing');
INSERT INTO public.deliverable VALUES
	('75e2d54a-d0ba-40b7-b423-ed85d3663482', '4ceb652f-6efa-483b-bbe5-b79e94adb5c1', 'b94e3dfa-04e5-4e1d-88ff-41e399440dbc', 'wide-watch', '{"x": 0, "y": 0, "widthPx": 320, "heightPx": 180}', 'dbbc3ae7-7a16-4f64-b195-b97ce1dd4438', 'Production 1/Output/CURL0041 wide watch page.mp4', 1698274, '{"audio": {"codec": "aac", "index": 1, "layout": "stereo", "profile": "LC", "seconds": 2, "channels": 2, "isDefault": true, "sampleRateHz": 48000, "startSeconds": 0, "bitsPerSecond": 192546}, "brand": "isom", "video": {"rate": {"den": 1, "num": 25}, "codec": "h264", "index": 0, "level": 40, "range": "limited", "chroma": "4:2:0", "frames": 50, "matrix": "bt709", "cadence": {"kind": "constant", "average": 25, "offGrid": 0, "measuredFrames": 50}, "profile": "High", "seconds": 2, "widthPx": 1920, "bitDepth": 8, "heightPx": 1080, "transfer": "bt709", "isDefault": true, "primaries": "bt709", "fieldOrder": "progressive", "framesFrom": "index", "keyDistance": 50, "pixelFormat": "yuv420p", "codedWidthPx": 1920, "sampleAspect": "1:1", "startSeconds": 0, "storedFrames": 50, "bitsPerSecond": 6586544, "codedHeightPx": 1080, "storedSeconds": 2, "displayWidthPx": 1920, "displayHeightPx": 1080, "rotationDegrees": 0, "sampleAspectStated": true}, "bounds": [], "others": [], "sounds": [{"codec": "aac", "index": 1, "layout": "stereo", "profile": "LC", "seconds": 2, "channels": 2, "isDefault": true, "sampleRateHz": 48000, "startSeconds": 0, "bitsPerSecond": 192546}], "videos": [{"rate": {"den": 1, "num": 25}, "codec": "h264", "index": 0, "level": 40, "range": "limited", "chroma": "4:2:0", "frames": 50, "matrix": "bt709", "cadence": {"kind": "constant", "average": 25, "offGrid": 0, "measuredFrames": 50}, "profile": "High", "seconds": 2, "widthPx": 1920, "bitDepth": 8, "heightPx": 1080, "transfer": "bt709", "isDefault": true, "primaries": "bt709", "fieldOrder": "progressive", "framesFrom": "index", "keyDistance": 50, "pixelFormat": "yuv420p", "codedWidthPx": 1920, "sampleAspect": "1:1", "startSeconds": 0, "storedFrames": 50, "bitsPerSecond": 6586544, "codedHeightPx": 1080, "storedSeconds": 2, "displayWidthPx": 1920, "displayHeightPx": 1080, "rotationDegrees": 0, "sampleAspectStated": true}], "seconds": 2, "sidecar": [], "version": 2, "container": "mov,mp4,m4a,3gp,3g2,mj2", "sizeBytes": 1698274, "indexFirst": true, "startSeconds": 0, "bitsPerSecond": 6793096}', '2026-11-28 21:37:18.656563+00', false, '{"fields": "frame", "colours": "stated", "soundTrack": null}', '{"bars": {"top": 0, "left": 0, "right": 0, "bottom": 0}, "detailBitsPerSecond": 2143412}');
INSERT INTO public.journal OVERRIDING SYSTEM VALUE VALUES
	(1, '2026-11-28 21:36:56.708286+00', 'copied', '4ceb652f-6efa-483b-bbe5-b79e94adb5c1', '02b44778-5184-42e7-8939-76b4dbb3a0f4', NULL, NULL, '{"troubles": 0, "volumeIds": ["dbbc3ae7-7a16-4f64-b195-b97ce1dd4438", "139595a2-0410-4d7a-89fa-43a1f4ba0e58"]}'),
	(2, '2026-11-28 21:37:14.378217+00', 'rendering', NULL, NULL, NULL, NULL, '{"hash": "6297ea174a1b58d8", "path": "Production 1/Output/CURL0041 wide watch page.mp4", "taskId": "0c9daa17-b029-4743-a94d-a2292c24f40f"}'),
	(3, '2026-11-28 21:37:18.663695+00', 'rendered', '4ceb652f-6efa-483b-bbe5-b79e94adb5c1', NULL, 'dbbc3ae7-7a16-4f64-b195-b97ce1dd4438', 'b94e3dfa-04e5-4e1d-88ff-41e399440dbc', '{"path": "Production 1/Output/CURL0041 wide watch page.mp4"}'),
	(4, '2026-11-28 21:37:18.95362+00', 'shelved', '4ceb652f-6efa-483b-bbe5-b79e94adb5c1', NULL, '139595a2-0410-4d7a-89fa-43a1f4ba0e58', NULL, '{"path": "Production 1/Shelf/CURL0041 wide watch page"}'),
	(5, '2026-11-28 21:37:27.342519+00', 'copied', '4ceb652f-6efa-483b-bbe5-b79e94adb5c1', '27aa350c-8fe9-49a2-9128-b1a30d20df9b', NULL, NULL, '{"troubles": 0, "volumeIds": ["dbbc3ae7-7a16-4f64-b195-b97ce1dd4438", "139595a2-0410-4d7a-89fa-43a1f4ba0e58"]}');
INSERT INTO public.kysely_migration VALUES
	('0001-first', '2026-11-28T21:36:47.321Z'),
	('0002-looked-again', '2026-11-28T21:36:47.331Z'),
	('0003-facts', '2026-11-28T21:36:47.535Z'),
	('0004-summaries', '2026-11-28T21:36:47.582Z'),
	('0005-tasks', '2026-11-28T21:36:47.612Z'),
	('0006-search', '2026-11-28T21:36:47.619Z'),
	('0007-unique-places', '2026-11-28T21:36:47.630Z'),
	('0008-pages', '2026-11-28T21:36:47.706Z'),
	('0009-speeds', '2026-11-28T21:36:47.709Z'),
	('0010-facts', '2026-11-28T21:36:47.730Z'),
	('0011-gear', '2026-11-28T21:36:47.833Z'),
	('0012-clips', '2026-11-28T21:36:47.867Z'),
	('0013-review', '2026-11-28T21:36:47.893Z'),
	('0014-noticed', '2026-11-28T21:36:47.904Z'),
	('0015-clock', '2026-11-28T21:36:47.910Z'),
	('0016-queue', '2026-11-28T21:36:47.917Z'),
	('0017-sorted', '2026-11-28T21:36:47.946Z'),
	('0018-unattended', '2026-11-28T21:36:47.948Z'),
	('0019-same', '2026-11-28T21:36:47.953Z'),
	('0020-twins', '2026-11-28T21:36:47.974Z'),
	('0021-given', '2026-11-28T21:36:47.984Z'),
	('0022-rigs', '2026-11-28T21:36:48.002Z');
INSERT INTO public.kysely_migration_lock VALUES
	('migration_lock', 0);
INSERT INTO public.load VALUES
	('02b44778-5184-42e7-8939-76b4dbb3a0f4', '4ceb652f-6efa-483b-bbe5-b79e94adb5c1', '68dc8560-ad4a-4067-80ea-2043bc70bbc2', 'Curlew A', '2026-11-28 21:36:52.83+00', 9, 628009, 0, '2026-11-28 21:36:52.827554+00', NULL, NULL, true, '[{"key": "gap 15c46495cca2ea", "kind": "gap", "files": 1, "paths": ["CURL0042", "CURL0044"], "weight": "ask", "sentence": "The counter jumps from CURL0042 to CURL0044: 1 number missing. Deleted in the camera, on another card, or another mode?"}, {"key": "twice 1d72241070b338", "kind": "twice", "files": 1, "paths": ["DCIM/101CURLW/GX020034.MP4"], "weight": "ask", "sentence": "1 clip has the content of another one on this card, as its length and samples of both tell: GX020034.MP4 that of GX010034.MP4. All are copied."}]', NULL, false, NULL, 0, NULL, false, NULL, NULL, NULL, false, false),
	('27aa350c-8fe9-49a2-9128-b1a30d20df9b', '4ceb652f-6efa-483b-bbe5-b79e94adb5c1', '68dc8560-ad4a-4067-80ea-2043bc70bbc2', 'Curlew A (2)', '2026-11-28 21:37:25.675+00', 2, 154792, 0, '2026-11-28 21:37:25.674661+00', NULL, NULL, true, '[]', NULL, false, NULL, 0, NULL, false, NULL, NULL, NULL, false, false),
	('3f2c9a79-aa3a-4673-89ba-468697c28dcc', '4ceb652f-6efa-483b-bbe5-b79e94adb5c1', 'ad2faa1f-d064-49c0-9fb1-35edb79d6681', 'Pole 1', '2026-11-28 21:37:20.27+00', 2, 93520, 0, '2026-11-28 21:37:20.267645+00', NULL, NULL, true, '[]', NULL, false, NULL, 0, NULL, false, '775b47ce-e2a8-4976-a9ec-3e68e921de81', 1, NULL, false, false),
	('5082b61d-61a2-4b2b-98f0-ee36dbb5e9a7', '4ceb652f-6efa-483b-bbe5-b79e94adb5c1', '80b270f5-a010-4512-afe1-26bf5ce82644', 'Pole 2', '2026-11-28 21:37:22.375+00', 2, 94689, 0, '2026-11-28 21:37:22.373421+00', NULL, NULL, true, '[]', NULL, false, NULL, 0, NULL, false, '775b47ce-e2a8-4976-a9ec-3e68e921de81', 2, NULL, false, false),
	('2cb2ba17-c900-4f38-884c-91cfc4b5ae7c', '4ceb652f-6efa-483b-bbe5-b79e94adb5c1', '19f4589d-7b63-4741-8933-f781bff11ce9', 'Pole 3', '2026-11-28 21:37:24.111+00', 2, 96092, 0, '2026-11-28 21:37:24.11039+00', NULL, NULL, true, '[]', NULL, false, NULL, 0, NULL, false, '775b47ce-e2a8-4976-a9ec-3e68e921de81', 3, NULL, false, false);
INSERT INTO public.load_entry OVERRIDING SYSTEM VALUE VALUES
	(1, '02b44778-5184-42e7-8939-76b4dbb3a0f4', '\x434c4950', 'CLIP', 'folder', 0, 1795901812674.537, 'on-card', false, false),
	(4, '02b44778-5184-42e7-8939-76b4dbb3a0f4', '\x4443494d', 'DCIM', 'folder', 0, 1795901811162.537, 'on-card', false, false),
	(5, '02b44778-5184-42e7-8939-76b4dbb3a0f4', '\x4443494d2f3130304355524c57', 'DCIM/100CURLW', 'folder', 0, 1795901810450.537, 'on-card', false, false),
	(9, '02b44778-5184-42e7-8939-76b4dbb3a0f4', '\x4443494d2f3130314355524c57', 'DCIM/101CURLW', 'folder', 0, 1795901811166.537, 'on-card', false, false),
	(12, '02b44778-5184-42e7-8939-76b4dbb3a0f4', '\x535542', 'SUB', 'folder', 0, 1795901812334.537, 'on-card', false, false),
	(2, '02b44778-5184-42e7-8939-76b4dbb3a0f4', '\x434c49502f43303034312e4d5034', 'CLIP/C0041.MP4', 'file', 183089, 1795901812134.537, 'on-card', true, false),
	(3, '02b44778-5184-42e7-8939-76b4dbb3a0f4', '\x434c49502f43303034314d30312e584d4c', 'CLIP/C0041M01.XML', 'file', 17, 1795901812674.537, 'on-card', true, false),
	(6, '02b44778-5184-42e7-8939-76b4dbb3a0f4', '\x4443494d2f3130304355524c572f4355524c303034312e4d5034', 'DCIM/100CURLW/CURL0041.MP4', 'file', 77396, 1794650460000, 'on-card', true, false),
	(7, '02b44778-5184-42e7-8939-76b4dbb3a0f4', '\x4443494d2f3130304355524c572f4355524c303034322e4d5034', 'DCIM/100CURLW/CURL0042.MP4', 'file', 77396, 1794650460000, 'on-card', true, false),
	(8, '02b44778-5184-42e7-8939-76b4dbb3a0f4', '\x4443494d2f3130304355524c572f4355524c303034342e4d5034', 'DCIM/100CURLW/CURL0044.MP4', 'file', 77396, 1794650460000, 'on-card', true, false),
	(10, '02b44778-5184-42e7-8939-76b4dbb3a0f4', '\x4443494d2f3130314355524c572f47583031303033342e4d5034', 'DCIM/101CURLW/GX010034.MP4', 'file', 77324, 1795901811166.406, 'on-card', true, false),
	(11, '02b44778-5184-42e7-8939-76b4dbb3a0f4', '\x4443494d2f3130314355524c572f47583032303033342e4d5034', 'DCIM/101CURLW/GX020034.MP4', 'file', 77324, 1795901811167.795, 'on-card', true, false),
	(13, '02b44778-5184-42e7-8939-76b4dbb3a0f4', '\x5355422f43303034315330332e4d5034', 'SUB/C0041S03.MP4', 'file', 58063, 1795901812662.537, 'on-card', true, false),
	(14, '02b44778-5184-42e7-8939-76b4dbb3a0f4', '\x6f64640a6e616d65', 'odd\nname', 'file', 4, 1795901812678.537, 'on-card', true, true),
	(15, '3f2c9a79-aa3a-4673-89ba-468697c28dcc', '\x4443494d', 'DCIM', 'folder', 0, 1795901839234.538, 'on-card', false, false),
	(16, '3f2c9a79-aa3a-4673-89ba-468697c28dcc', '\x4443494d2f313030504f4c4553', 'DCIM/100POLES', 'folder', 0, 1795901839682.538, 'on-card', false, false),
	(17, '3f2c9a79-aa3a-4673-89ba-468697c28dcc', '\x4443494d2f313030504f4c45532f504f4c45303030312e4d5034', 'DCIM/100POLES/POLE0001.MP4', 'file', 30827, 1795901839518.538, 'on-card', false, false),
	(18, '3f2c9a79-aa3a-4673-89ba-468697c28dcc', '\x4443494d2f313030504f4c45532f504f4c45303030322e4d5034', 'DCIM/100POLES/POLE0002.MP4', 'file', 62693, 1795901839922.538, 'on-card', false, false),
	(19, '5082b61d-61a2-4b2b-98f0-ee36dbb5e9a7', '\x4443494d', 'DCIM', 'folder', 0, 1795901841294.538, 'on-card', false, false),
	(20, '5082b61d-61a2-4b2b-98f0-ee36dbb5e9a7', '\x4443494d2f313030504f4c4553', 'DCIM/100POLES', 'folder', 0, 1795901841790.538, 'on-card', false, false),
	(21, '5082b61d-61a2-4b2b-98f0-ee36dbb5e9a7', '\x4443494d2f313030504f4c45532f504f4c45303030312e4d5034', 'DCIM/100POLES/POLE0001.MP4', 'file', 31361, 1795901841630.538, 'on-card', false, false),
	(22, '5082b61d-61a2-4b2b-98f0-ee36dbb5e9a7', '\x4443494d2f313030504f4c45532f504f4c45303030322e4d5034', 'DCIM/100POLES/POLE0002.MP4', 'file', 63328, 1795901842026.538, 'on-card', false, false),
	(23, '2cb2ba17-c900-4f38-884c-91cfc4b5ae7c', '\x4443494d', 'DCIM', 'folder', 0, 1795901843350.5383, 'on-card', false, false),
	(24, '2cb2ba17-c900-4f38-884c-91cfc4b5ae7c', '\x4443494d2f313030504f4c4553', 'DCIM/100POLES', 'folder', 0, 1795901843666.5383, 'on-card', false, false),
	(25, '2cb2ba17-c900-4f38-884c-91cfc4b5ae7c', '\x4443494d2f313030504f4c45532f504f4c45303030312e4d5034', 'DCIM/100POLES/POLE0001.MP4', 'file', 32080, 1795901843546.5383, 'on-card', false, false),
	(26, '2cb2ba17-c900-4f38-884c-91cfc4b5ae7c', '\x4443494d2f313030504f4c45532f504f4c45303030322e4d5034', 'DCIM/100POLES/POLE0002.MP4', 'file', 64012, 1795901843826.5383, 'on-card', false, false),
	(27, '27aa350c-8fe9-49a2-9128-b1a30d20df9b', '\x4443494d', 'DCIM', 'folder', 0, 1795901845590.5383, 'on-card', false, false),
	(28, '27aa350c-8fe9-49a2-9128-b1a30d20df9b', '\x4443494d2f3130304355524c57', 'DCIM/100CURLW', 'folder', 0, 1795901845592.3926, 'on-card', false, false),
	(29, '27aa350c-8fe9-49a2-9128-b1a30d20df9b', '\x4443494d2f3130304355524c572f4355524c303035312e4d5034', 'DCIM/100CURLW/CURL0051.MP4', 'file', 77396, 1795901845590.5383, 'on-card', true, false),
	(30, '27aa350c-8fe9-49a2-9128-b1a30d20df9b', '\x4443494d2f3130304355524c572f4355524c303035322e4d5034', 'DCIM/100CURLW/CURL0052.MP4', 'file', 77396, 1795901845592.3926, 'on-card', true, false);
INSERT INTO public.load_finding VALUES
	('02b44778-5184-42e7-8939-76b4dbb3a0f4', 'odd-name', 1, 'odd-name 13542db3aef6e4', '["odd\\nname"]');
INSERT INTO public.load_sample VALUES
	('02b44778-5184-42e7-8939-76b4dbb3a0f4', 2, '0c669cc5936db4d9', '2026-11-28 21:36:55.648724+00'),
	('02b44778-5184-42e7-8939-76b4dbb3a0f4', 6, '7dc78d55bcc445a4', '2026-11-28 21:36:55.648993+00'),
	('02b44778-5184-42e7-8939-76b4dbb3a0f4', 7, 'dc2cc0d2b1d6c2a7', '2026-11-28 21:36:55.649011+00'),
	('02b44778-5184-42e7-8939-76b4dbb3a0f4', 8, '1d28c72087072247', '2026-11-28 21:36:55.64902+00'),
	('02b44778-5184-42e7-8939-76b4dbb3a0f4', 10, '7c51ab2f07e07969', '2026-11-28 21:36:55.649031+00'),
	('02b44778-5184-42e7-8939-76b4dbb3a0f4', 11, '7c51ab2f07e07969', '2026-11-28 21:36:55.649039+00'),
	('02b44778-5184-42e7-8939-76b4dbb3a0f4', 13, '76f8d613b3b85dde', '2026-11-28 21:36:55.649047+00'),
	('02b44778-5184-42e7-8939-76b4dbb3a0f4', 14, 'da3a5d4713efed80', '2026-11-28 21:36:55.649056+00'),
	('02b44778-5184-42e7-8939-76b4dbb3a0f4', 3, 'd929d4c5030b35a3', '2026-11-28 21:36:55.649064+00'),
	('3f2c9a79-aa3a-4673-89ba-468697c28dcc', 18, '5dcaaa4ab3119e15', '2026-11-28 21:37:21.035994+00'),
	('3f2c9a79-aa3a-4673-89ba-468697c28dcc', 17, 'b15adaa8e27e2db8', '2026-11-28 21:37:21.036068+00'),
	('5082b61d-61a2-4b2b-98f0-ee36dbb5e9a7', 22, '65fcaca53ce64b3a', '2026-11-28 21:37:23.153457+00'),
	('5082b61d-61a2-4b2b-98f0-ee36dbb5e9a7', 21, 'cd529c5c05c3465d', '2026-11-28 21:37:23.153541+00'),
	('2cb2ba17-c900-4f38-884c-91cfc4b5ae7c', 26, '008a0a8bb7684109', '2026-11-28 21:37:24.740094+00'),
	('2cb2ba17-c900-4f38-884c-91cfc4b5ae7c', 25, '6e804425a6b40b09', '2026-11-28 21:37:24.740153+00'),
	('27aa350c-8fe9-49a2-9128-b1a30d20df9b', 29, 'af8db133dbb6f5ea', '2026-11-28 21:37:26.334577+00'),
	('27aa350c-8fe9-49a2-9128-b1a30d20df9b', 30, '0a4e909a5c994caf', '2026-11-28 21:37:26.334646+00');
INSERT INTO public.load_summary VALUES
	('02b44778-5184-42e7-8939-76b4dbb3a0f4', 1, 2000, 1, 1, 0, 0, 207315, 1, '04a9cc8b-e622-431f-916f-d25bd9f8ebe5'),
	('02b44778-5184-42e7-8939-76b4dbb3a0f4', 4, 10000, 5, 5, 1, 0, 811795, 5, '4ceb652f-6efa-483b-bbe5-b79e94adb5c1'),
	('3f2c9a79-aa3a-4673-89ba-468697c28dcc', 2, 6080, 2, 2, 0, 0, 510584, 2, '4ceb652f-6efa-483b-bbe5-b79e94adb5c1'),
	('2cb2ba17-c900-4f38-884c-91cfc4b5ae7c', 2, 6240, 2, 2, 0, 0, 520652, 2, '4ceb652f-6efa-483b-bbe5-b79e94adb5c1'),
	('5082b61d-61a2-4b2b-98f0-ee36dbb5e9a7', 2, 6160, 2, 2, 0, 0, 515618, 2, '4ceb652f-6efa-483b-bbe5-b79e94adb5c1'),
	('27aa350c-8fe9-49a2-9128-b1a30d20df9b', 2, 4000, 2, 2, 0, 0, 414630, 2, '4ceb652f-6efa-483b-bbe5-b79e94adb5c1');
INSERT INTO public.mirror VALUES
	('02b44778-5184-42e7-8939-76b4dbb3a0f4', 'dbbc3ae7-7a16-4f64-b195-b97ce1dd4438', 'Production 1/Cards/Curlew A', '2026-11-28 21:36:56.148912+00', true, '2026-11-28 21:37:27.839+00', 2, 9, 0, 0, 0, 0, 0, 628009, 628009),
	('02b44778-5184-42e7-8939-76b4dbb3a0f4', '139595a2-0410-4d7a-89fa-43a1f4ba0e58', 'Production 1/Cards/Curlew A', '2026-11-28 21:36:56.199031+00', true, '2026-11-28 21:37:27.864+00', 3, 9, 0, 0, 0, 0, 0, 628009, 628009),
	('27aa350c-8fe9-49a2-9128-b1a30d20df9b', 'dbbc3ae7-7a16-4f64-b195-b97ce1dd4438', 'Production 1/Cards/Curlew A (2)', '2026-11-28 21:37:26.901673+00', true, '2026-11-28 21:37:27.885+00', 8, 2, 0, 0, 0, 0, 0, 154792, 154792),
	('27aa350c-8fe9-49a2-9128-b1a30d20df9b', '139595a2-0410-4d7a-89fa-43a1f4ba0e58', 'Production 1/Cards/Curlew A (2)', '2026-11-28 21:37:26.928778+00', true, '2026-11-28 21:37:27.911+00', 10, 1, 0, 1, 0, 0, 0, 77396, 77396);
INSERT INTO public.mount VALUES
	('dbbc3ae7-7a16-4f64-b195-b97ce1dd4438', 'saltmarsh', '/media/books/world 1/slipway', true, '2026-11-28 21:37:27.66+00', 270553174016, 82401038336, '{"disks": ["/media/books/world 1/slipway"], "known": true, "pastCache": true, "fileSystem": "/media/books/world 1/slipway"}', NULL, NULL, 'hard'),
	('139595a2-0410-4d7a-89fa-43a1f4ba0e58', 'saltmarsh', '/media/books/world 1/tide', true, '2026-11-28 21:37:27.663+00', 270553174016, 82401038336, '{"disks": ["/media/books/world 1/tide"], "known": true, "pastCache": true, "fileSystem": "/media/books/world 1/tide"}', NULL, NULL, 'hard');
INSERT INTO public.production VALUES
	('4ceb652f-6efa-483b-bbe5-b79e94adb5c1', 'Production 1', NULL, '2026-11-28 21:36:50.573796+00', 'Production 1', 'UTC', NULL, NULL),
	('04a9cc8b-e622-431f-916f-d25bd9f8ebe5', 'Launch day', NULL, '2026-11-28 21:37:19.15114+00', 'Launch day', 'UTC', NULL, NULL);
INSERT INTO public.production_bytes VALUES
	('4ceb652f-6efa-483b-bbe5-b79e94adb5c1', 'dbbc3ae7-7a16-4f64-b195-b97ce1dd4438', 'generated', 64075),
	('4ceb652f-6efa-483b-bbe5-b79e94adb5c1', 'dbbc3ae7-7a16-4f64-b195-b97ce1dd4438', 'outputs', 1698274),
	('4ceb652f-6efa-483b-bbe5-b79e94adb5c1', '139595a2-0410-4d7a-89fa-43a1f4ba0e58', 'outputs', 1698515),
	('4ceb652f-6efa-483b-bbe5-b79e94adb5c1', 'dbbc3ae7-7a16-4f64-b195-b97ce1dd4438', 'originals', 782801),
	('4ceb652f-6efa-483b-bbe5-b79e94adb5c1', '139595a2-0410-4d7a-89fa-43a1f4ba0e58', 'originals', 705405);
INSERT INTO public.proof OVERRIDING SYSTEM VALUE VALUES
	(1, '2026-11-28 21:36:56.492437+00', 'copy', 'equal', '139595a2-0410-4d7a-89fa-43a1f4ba0e58', '\x50726f64756374696f6e20312f43617264732f4375726c657720412f434c49502f43303034312e4d5034', 'xxh64', 'd58bd95ffcfb45b2', NULL, 183089, 1795901812134.537, true, true, '5f369984-de17-4ad6-b985-2e98dddae212', '02b44778-5184-42e7-8939-76b4dbb3a0f4', 2, NULL, NULL, NULL),
	(2, '2026-11-28 21:36:56.492723+00', 'copy', 'equal', '139595a2-0410-4d7a-89fa-43a1f4ba0e58', '\x50726f64756374696f6e20312f43617264732f4375726c657720412f434c49502f43303034314d30312e584d4c', 'xxh64', 'd929d4c5030b35a3', NULL, 17, 1795901812674.537, true, true, '5f369984-de17-4ad6-b985-2e98dddae212', '02b44778-5184-42e7-8939-76b4dbb3a0f4', 3, NULL, NULL, NULL),
	(3, '2026-11-28 21:36:56.492742+00', 'copy', 'equal', '139595a2-0410-4d7a-89fa-43a1f4ba0e58', '\x50726f64756374696f6e20312f43617264732f4375726c657720412f4443494d2f3130304355524c572f4355524c303034312e4d5034', 'xxh64', 'c8942f5f91e837f1', NULL, 77396, 1794650460000, true, true, '5f369984-de17-4ad6-b985-2e98dddae212', '02b44778-5184-42e7-8939-76b4dbb3a0f4', 6, NULL, NULL, NULL),
	(4, '2026-11-28 21:36:56.492752+00', 'copy', 'equal', '139595a2-0410-4d7a-89fa-43a1f4ba0e58', '\x50726f64756374696f6e20312f43617264732f4375726c657720412f4443494d2f3130304355524c572f4355524c303034322e4d5034', 'xxh64', 'a320e59cc0029d3c', NULL, 77396, 1794650460000, true, true, '5f369984-de17-4ad6-b985-2e98dddae212', '02b44778-5184-42e7-8939-76b4dbb3a0f4', 7, NULL, NULL, NULL),
	(5, '2026-11-28 21:36:56.492766+00', 'copy', 'equal', '139595a2-0410-4d7a-89fa-43a1f4ba0e58', '\x50726f64756374696f6e20312f43617264732f4375726c657720412f4443494d2f3130304355524c572f4355524c303034342e4d5034', 'xxh64', '93cacbeb368d2fbd', NULL, 77396, 1794650460000, true, true, '5f369984-de17-4ad6-b985-2e98dddae212', '02b44778-5184-42e7-8939-76b4dbb3a0f4', 8, NULL, NULL, NULL),
	(6, '2026-11-28 21:36:56.492775+00', 'copy', 'equal', '139595a2-0410-4d7a-89fa-43a1f4ba0e58', '\x50726f64756374696f6e20312f43617264732f4375726c657720412f4443494d2f3130314355524c572f47583031303033342e4d5034', 'xxh64', 'dd8dd94b6781861a', NULL, 77324, 1795901811166.405, true, true, '5f369984-de17-4ad6-b985-2e98dddae212', '02b44778-5184-42e7-8939-76b4dbb3a0f4', 10, NULL, NULL, NULL),
	(7, '2026-11-28 21:36:56.492783+00', 'copy', 'equal', '139595a2-0410-4d7a-89fa-43a1f4ba0e58', '\x50726f64756374696f6e20312f43617264732f4375726c657720412f4443494d2f3130314355524c572f47583032303033342e4d5034', 'xxh64', 'dd8dd94b6781861a', NULL, 77324, 1795901811167.794, true, true, '5f369984-de17-4ad6-b985-2e98dddae212', '02b44778-5184-42e7-8939-76b4dbb3a0f4', 11, NULL, NULL, NULL),
	(8, '2026-11-28 21:36:56.492791+00', 'copy', 'equal', '139595a2-0410-4d7a-89fa-43a1f4ba0e58', '\x50726f64756374696f6e20312f43617264732f4375726c657720412f5355422f43303034315330332e4d5034', 'xxh64', '76f8d613b3b85dde', NULL, 58063, 1795901812662.537, true, true, '5f369984-de17-4ad6-b985-2e98dddae212', '02b44778-5184-42e7-8939-76b4dbb3a0f4', 13, NULL, NULL, NULL),
	(9, '2026-11-28 21:36:56.4928+00', 'copy', 'equal', '139595a2-0410-4d7a-89fa-43a1f4ba0e58', '\x50726f64756374696f6e20312f43617264732f4375726c657720412f6f64640a6e616d65', 'xxh64', 'da3a5d4713efed80', NULL, 4, 1795901812678.537, true, true, '5f369984-de17-4ad6-b985-2e98dddae212', '02b44778-5184-42e7-8939-76b4dbb3a0f4', 14, NULL, NULL, NULL),
	(10, '2026-11-28 21:36:56.514623+00', 'copy', 'equal', 'dbbc3ae7-7a16-4f64-b195-b97ce1dd4438', '\x50726f64756374696f6e20312f43617264732f4375726c657720412f434c49502f43303034312e4d5034', 'xxh64', 'd58bd95ffcfb45b2', NULL, 183089, 1795901812134.537, true, true, '5f369984-de17-4ad6-b985-2e98dddae212', '02b44778-5184-42e7-8939-76b4dbb3a0f4', 2, NULL, NULL, NULL),
	(11, '2026-11-28 21:36:56.514717+00', 'copy', 'equal', 'dbbc3ae7-7a16-4f64-b195-b97ce1dd4438', '\x50726f64756374696f6e20312f43617264732f4375726c657720412f434c49502f43303034314d30312e584d4c', 'xxh64', 'd929d4c5030b35a3', NULL, 17, 1795901812674.537, true, true, '5f369984-de17-4ad6-b985-2e98dddae212', '02b44778-5184-42e7-8939-76b4dbb3a0f4', 3, NULL, NULL, NULL),
	(12, '2026-11-28 21:36:56.514742+00', 'copy', 'equal', 'dbbc3ae7-7a16-4f64-b195-b97ce1dd4438', '\x50726f64756374696f6e20312f43617264732f4375726c657720412f4443494d2f3130304355524c572f4355524c303034312e4d5034', 'xxh64', 'c8942f5f91e837f1', NULL, 77396, 1794650460000, true, true, '5f369984-de17-4ad6-b985-2e98dddae212', '02b44778-5184-42e7-8939-76b4dbb3a0f4', 6, NULL, NULL, NULL),
	(13, '2026-11-28 21:36:56.514754+00', 'copy', 'equal', 'dbbc3ae7-7a16-4f64-b195-b97ce1dd4438', '\x50726f64756374696f6e20312f43617264732f4375726c657720412f4443494d2f3130304355524c572f4355524c303034322e4d5034', 'xxh64', 'a320e59cc0029d3c', NULL, 77396, 1794650460000, true, true, '5f369984-de17-4ad6-b985-2e98dddae212', '02b44778-5184-42e7-8939-76b4dbb3a0f4', 7, NULL, NULL, NULL),
	(14, '2026-11-28 21:36:56.514764+00', 'copy', 'equal', 'dbbc3ae7-7a16-4f64-b195-b97ce1dd4438', '\x50726f64756374696f6e20312f43617264732f4375726c657720412f4443494d2f3130304355524c572f4355524c303034342e4d5034', 'xxh64', '93cacbeb368d2fbd', NULL, 77396, 1794650460000, true, true, '5f369984-de17-4ad6-b985-2e98dddae212', '02b44778-5184-42e7-8939-76b4dbb3a0f4', 8, NULL, NULL, NULL),
	(15, '2026-11-28 21:36:56.514773+00', 'copy', 'equal', 'dbbc3ae7-7a16-4f64-b195-b97ce1dd4438', '\x50726f64756374696f6e20312f43617264732f4375726c657720412f4443494d2f3130314355524c572f47583031303033342e4d5034', 'xxh64', 'dd8dd94b6781861a', NULL, 77324, 1795901811166.405, true, true, '5f369984-de17-4ad6-b985-2e98dddae212', '02b44778-5184-42e7-8939-76b4dbb3a0f4', 10, NULL, NULL, NULL),
	(16, '2026-11-28 21:36:56.514784+00', 'copy', 'equal', 'dbbc3ae7-7a16-4f64-b195-b97ce1dd4438', '\x50726f64756374696f6e20312f43617264732f4375726c657720412f4443494d2f3130314355524c572f47583032303033342e4d5034', 'xxh64', 'dd8dd94b6781861a', NULL, 77324, 1795901811167.794, true, true, '5f369984-de17-4ad6-b985-2e98dddae212', '02b44778-5184-42e7-8939-76b4dbb3a0f4', 11, NULL, NULL, NULL),
	(17, '2026-11-28 21:36:56.514794+00', 'copy', 'equal', 'dbbc3ae7-7a16-4f64-b195-b97ce1dd4438', '\x50726f64756374696f6e20312f43617264732f4375726c657720412f5355422f43303034315330332e4d5034', 'xxh64', '76f8d613b3b85dde', NULL, 58063, 1795901812662.537, true, true, '5f369984-de17-4ad6-b985-2e98dddae212', '02b44778-5184-42e7-8939-76b4dbb3a0f4', 13, NULL, NULL, NULL),
	(18, '2026-11-28 21:36:56.514804+00', 'copy', 'equal', 'dbbc3ae7-7a16-4f64-b195-b97ce1dd4438', '\x50726f64756374696f6e20312f43617264732f4375726c657720412f6f64640a6e616d65', 'xxh64', 'da3a5d4713efed80', NULL, 4, 1795901812678.537, true, true, '5f369984-de17-4ad6-b985-2e98dddae212', '02b44778-5184-42e7-8939-76b4dbb3a0f4', 14, NULL, NULL, NULL),
	(19, '2026-11-28 21:36:58.481316+00', 'copy', 'equal', '139595a2-0410-4d7a-89fa-43a1f4ba0e58', '\x50726f64756374696f6e20312f43617264732f4375726c657720412f434c49502f43303034312e4d5034', 'xxh64', 'd58bd95ffcfb45b2', NULL, 183089, 1795901812134.537, true, false, '80d0b8cc-d771-4630-a102-fe058605d00f', '02b44778-5184-42e7-8939-76b4dbb3a0f4', 2, NULL, NULL, NULL),
	(20, '2026-11-28 21:36:58.481441+00', 'copy', 'equal', '139595a2-0410-4d7a-89fa-43a1f4ba0e58', '\x50726f64756374696f6e20312f43617264732f4375726c657720412f434c49502f43303034314d30312e584d4c', 'xxh64', 'd929d4c5030b35a3', NULL, 17, 1795901812674.537, true, false, '80d0b8cc-d771-4630-a102-fe058605d00f', '02b44778-5184-42e7-8939-76b4dbb3a0f4', 3, NULL, NULL, NULL),
	(21, '2026-11-28 21:36:58.481455+00', 'copy', 'equal', '139595a2-0410-4d7a-89fa-43a1f4ba0e58', '\x50726f64756374696f6e20312f43617264732f4375726c657720412f4443494d2f3130304355524c572f4355524c303034312e4d5034', 'xxh64', 'c8942f5f91e837f1', NULL, 77396, 1794650460000, true, false, '80d0b8cc-d771-4630-a102-fe058605d00f', '02b44778-5184-42e7-8939-76b4dbb3a0f4', 6, NULL, NULL, NULL),
	(22, '2026-11-28 21:36:58.481466+00', 'copy', 'equal', '139595a2-0410-4d7a-89fa-43a1f4ba0e58', '\x50726f64756374696f6e20312f43617264732f4375726c657720412f4443494d2f3130304355524c572f4355524c303034322e4d5034', 'xxh64', 'a320e59cc0029d3c', NULL, 77396, 1794650460000, true, false, '80d0b8cc-d771-4630-a102-fe058605d00f', '02b44778-5184-42e7-8939-76b4dbb3a0f4', 7, NULL, NULL, NULL),
	(23, '2026-11-28 21:36:58.481491+00', 'copy', 'equal', '139595a2-0410-4d7a-89fa-43a1f4ba0e58', '\x50726f64756374696f6e20312f43617264732f4375726c657720412f4443494d2f3130304355524c572f4355524c303034342e4d5034', 'xxh64', '93cacbeb368d2fbd', NULL, 77396, 1794650460000, true, false, '80d0b8cc-d771-4630-a102-fe058605d00f', '02b44778-5184-42e7-8939-76b4dbb3a0f4', 8, NULL, NULL, NULL),
	(24, '2026-11-28 21:36:58.481502+00', 'copy', 'equal', '139595a2-0410-4d7a-89fa-43a1f4ba0e58', '\x50726f64756374696f6e20312f43617264732f4375726c657720412f4443494d2f3130314355524c572f47583031303033342e4d5034', 'xxh64', 'dd8dd94b6781861a', NULL, 77324, 1795901811166.405, true, false, '80d0b8cc-d771-4630-a102-fe058605d00f', '02b44778-5184-42e7-8939-76b4dbb3a0f4', 10, NULL, NULL, NULL),
	(25, '2026-11-28 21:36:58.481512+00', 'copy', 'equal', '139595a2-0410-4d7a-89fa-43a1f4ba0e58', '\x50726f64756374696f6e20312f43617264732f4375726c657720412f4443494d2f3130314355524c572f47583032303033342e4d5034', 'xxh64', 'dd8dd94b6781861a', NULL, 77324, 1795901811167.794, true, false, '80d0b8cc-d771-4630-a102-fe058605d00f', '02b44778-5184-42e7-8939-76b4dbb3a0f4', 11, NULL, NULL, NULL),
	(26, '2026-11-28 21:36:58.481521+00', 'copy', 'equal', '139595a2-0410-4d7a-89fa-43a1f4ba0e58', '\x50726f64756374696f6e20312f43617264732f4375726c657720412f5355422f43303034315330332e4d5034', 'xxh64', '76f8d613b3b85dde', NULL, 58063, 1795901812662.537, true, false, '80d0b8cc-d771-4630-a102-fe058605d00f', '02b44778-5184-42e7-8939-76b4dbb3a0f4', 13, NULL, NULL, NULL),
	(27, '2026-11-28 21:36:58.481531+00', 'copy', 'equal', '139595a2-0410-4d7a-89fa-43a1f4ba0e58', '\x50726f64756374696f6e20312f43617264732f4375726c657720412f6f64640a6e616d65', 'xxh64', 'da3a5d4713efed80', NULL, 4, 1795901812678.537, true, false, '80d0b8cc-d771-4630-a102-fe058605d00f', '02b44778-5184-42e7-8939-76b4dbb3a0f4', 14, NULL, NULL, NULL),
	(28, '2026-11-28 21:37:00.372345+00', 'proxy', 'equal', 'dbbc3ae7-7a16-4f64-b195-b97ce1dd4438', '\x50726f64756374696f6e20312f50726f786965732f4375726c657720412f4443494d2f3130304355524c572f4355524c303034312e6d7034', 'xxh64', 'ea92619f085ea8df', NULL, 64075, 1795901819935.9824, true, true, '03289816-c23d-4b8e-98d9-2e6fa0374022', NULL, NULL, 'b94e3dfa-04e5-4e1d-88ff-41e399440dbc', NULL, NULL),
	(29, '2026-11-28 21:37:18.66161+00', 'deliverable', 'equal', 'dbbc3ae7-7a16-4f64-b195-b97ce1dd4438', '\x50726f64756374696f6e20312f4f75747075742f4355524c30303431207769646520776174636820706167652e6d7034', 'xxh64', '6297ea174a1b58d8', NULL, 1698274, 1795901834336.4353, true, true, '12bafcb1-8941-480b-b321-a77ddd3cbb5b', NULL, NULL, NULL, '75e2d54a-d0ba-40b7-b423-ed85d3663482', NULL),
	(30, '2026-11-28 21:37:18.952143+00', 'bag', 'equal', '139595a2-0410-4d7a-89fa-43a1f4ba0e58', '\x50726f64756374696f6e20312f5368656c662f4355524c30303431207769646520776174636820706167652f646174612f4355524c30303431207769646520776174636820706167652e6d7034', 'sha256', 'b614f5bc97cf2d8e0853c09c5c027537198532ed35b5e2f754cd0be75498b164', NULL, 1698274, 1795901834336.435, true, true, '42880e15-9be3-47e7-bb19-4eda193e3d70', NULL, NULL, NULL, NULL, 'c91a3552-4410-4cc5-a75e-767cfa983ab3'),
	(31, '2026-11-28 21:37:18.95234+00', 'bag', 'equal', '139595a2-0410-4d7a-89fa-43a1f4ba0e58', '\x50726f64756374696f6e20312f5368656c662f4355524c30303431207769646520776174636820706167652f646174612f61626f757420746869732066696c6d2e747874', 'sha256', 'e1d3147b7380262836dd1939b11d6ad8f490d72ffd077487426f999619fadc00', NULL, 241, 1795901838887, true, true, '42880e15-9be3-47e7-bb19-4eda193e3d70', NULL, NULL, NULL, NULL, 'c91a3552-4410-4cc5-a75e-767cfa983ab3'),
	(32, '2026-11-28 21:37:27.223673+00', 'copy', 'equal', '139595a2-0410-4d7a-89fa-43a1f4ba0e58', '\x50726f64756374696f6e20312f43617264732f4375726c65772041202832292f4443494d2f3130304355524c572f4355524c303035312e4d5034', 'xxh64', '41a3c0189080544b', NULL, 77396, 1795901845590.538, true, true, '269de778-55f7-4a58-8af5-1439c94a248c', '27aa350c-8fe9-49a2-9128-b1a30d20df9b', 29, NULL, NULL, NULL),
	(33, '2026-11-28 21:37:27.223806+00', 'copy', 'equal', '139595a2-0410-4d7a-89fa-43a1f4ba0e58', '\x50726f64756374696f6e20312f43617264732f4375726c65772041202832292f4443494d2f3130304355524c572f4355524c303035322e4d5034', 'xxh64', '58aee1d01dc31aa7', NULL, 77396, 1795901845592.392, true, true, '269de778-55f7-4a58-8af5-1439c94a248c', '27aa350c-8fe9-49a2-9128-b1a30d20df9b', 30, NULL, NULL, NULL),
	(34, '2026-11-28 21:37:27.253305+00', 'copy', 'equal', 'dbbc3ae7-7a16-4f64-b195-b97ce1dd4438', '\x50726f64756374696f6e20312f43617264732f4375726c65772041202832292f4443494d2f3130304355524c572f4355524c303035312e4d5034', 'xxh64', '41a3c0189080544b', NULL, 77396, 1795901845590.538, true, true, '269de778-55f7-4a58-8af5-1439c94a248c', '27aa350c-8fe9-49a2-9128-b1a30d20df9b', 29, NULL, NULL, NULL),
	(35, '2026-11-28 21:37:27.253408+00', 'copy', 'equal', 'dbbc3ae7-7a16-4f64-b195-b97ce1dd4438', '\x50726f64756374696f6e20312f43617264732f4375726c65772041202832292f4443494d2f3130304355524c572f4355524c303035322e4d5034', 'xxh64', '58aee1d01dc31aa7', NULL, 77396, 1795901845592.392, true, true, '269de778-55f7-4a58-8af5-1439c94a248c', '27aa350c-8fe9-49a2-9128-b1a30d20df9b', 30, NULL, NULL, NULL);
INSERT INTO public.proxy VALUES
	('96c3792d-b149-46f4-b6b7-f19b3d2132c9', 'b94e3dfa-04e5-4e1d-88ff-41e399440dbc', 'dbbc3ae7-7a16-4f64-b195-b97ce1dd4438', 'Production 1/Proxies/Curlew A/DCIM/100CURLW/CURL0041.mp4', 64075, '{"audio": {"codec": "aac", "index": 1, "layout": "mono", "profile": "LC", "seconds": 2.04, "channels": 1, "isDefault": true, "sampleRateHz": 44100, "startSeconds": 0, "bitsPerSecond": 63938}, "brand": "isom", "video": {"rate": {"den": 1, "num": 25}, "codec": "h264", "index": 0, "level": 13, "chroma": "4:2:0", "frames": 50, "cadence": {"kind": "constant", "average": 25, "offGrid": 0, "measuredFrames": 50}, "profile": "High", "seconds": 2, "widthPx": 160, "bitDepth": 8, "heightPx": 90, "isDefault": true, "fieldOrder": "progressive", "framesFrom": "index", "keyDistance": 25, "pixelFormat": "yuv420p", "codedWidthPx": 160, "sampleAspect": "1:1", "startSeconds": 0, "storedFrames": 50, "bitsPerSecond": 174884, "codedHeightPx": 90, "storedSeconds": 2, "displayWidthPx": 160, "displayHeightPx": 90, "rotationDegrees": 0, "sampleAspectStated": true}, "bounds": [], "others": [], "sounds": [{"codec": "aac", "index": 1, "layout": "mono", "profile": "LC", "seconds": 2.04, "channels": 1, "isDefault": true, "sampleRateHz": 44100, "startSeconds": 0, "bitsPerSecond": 63938}], "videos": [{"rate": {"den": 1, "num": 25}, "codec": "h264", "index": 0, "level": 13, "chroma": "4:2:0", "frames": 50, "cadence": {"kind": "constant", "average": 25, "offGrid": 0, "measuredFrames": 50}, "profile": "High", "seconds": 2, "widthPx": 160, "bitDepth": 8, "heightPx": 90, "isDefault": true, "fieldOrder": "progressive", "framesFrom": "index", "keyDistance": 25, "pixelFormat": "yuv420p", "codedWidthPx": 160, "sampleAspect": "1:1", "startSeconds": 0, "storedFrames": 50, "bitsPerSecond": 174884, "codedHeightPx": 90, "storedSeconds": 2, "displayWidthPx": 160, "displayHeightPx": 90, "rotationDegrees": 0, "sampleAspectStated": true}], "seconds": 2.04, "sidecar": [], "version": 2, "container": "mov,mp4,m4a,3gp,3g2,mj2", "sizeBytes": 64075, "indexFirst": true, "startSeconds": 0, "bitsPerSecond": 251274}', '2026-11-28 21:37:00.332+00', 50, 0, 50, 0);
INSERT INTO public.reader VALUES
	('b9d5c163-737b-45e0-a00e-8ad557848a42', 'second slot', '/media/books/world 1/second', false, 'saltmarsh', '2026-11-28 21:36:57.522062+00', 'card', 'second slot', '02b44778-5184-42e7-8939-76b4dbb3a0f4', true, NULL, '{"disks": ["/media/books/world 1/second"], "known": true, "pastCache": true, "fileSystem": "/media/books/world 1/second"}', '2026-11-28 21:36:57.673+00', NULL, NULL, 270553174016, 82487545856, NULL, '["C#.MP#", "C#M#.XML", "C#S#.MP#", "CURL#.MP#", "GX#.MP#", "ODD\\NNAME"]', '47ba4f670c1b6eb5', 'ca2d8076-9375-49f3-bd11-95a95c65fc42'),
	('ad2faa1f-d064-49c0-9fb1-35edb79d6681', 'lens 1', '/media/books/lens 1', false, 'saltmarsh', '2026-11-28 21:37:19.995125+00', 'card', 'lens 1', '3f2c9a79-aa3a-4673-89ba-468697c28dcc', true, NULL, '{"disks": ["name:vda"], "known": true, "pastCache": true, "fileSystem": "fs:65024"}', '2026-11-28 21:37:21.198+00', NULL, NULL, 270553174016, 82420899840, NULL, '["POLE#.MP#"]', '4d08cd358089829d', NULL),
	('80b270f5-a010-4512-afe1-26bf5ce82644', 'lens 2', '/media/books/lens 2', false, 'saltmarsh', '2026-11-28 21:37:22.121214+00', 'card', 'lens 2', '5082b61d-61a2-4b2b-98f0-ee36dbb5e9a7', true, NULL, '{"disks": ["name:vda"], "known": true, "pastCache": true, "fileSystem": "fs:65024"}', '2026-11-28 21:37:23.32+00', NULL, NULL, 270553174016, 82414931968, NULL, '["POLE#.MP#"]', 'f93f8e7e63379952', NULL),
	('19f4589d-7b63-4741-8933-f781bff11ce9', 'lens 3', '/media/books/lens 3', false, 'saltmarsh', '2026-11-28 21:37:23.898576+00', 'card', 'lens 3', '2cb2ba17-c900-4f38-884c-91cfc4b5ae7c', true, NULL, '{"disks": ["name:vda"], "known": true, "pastCache": true, "fileSystem": "fs:65024"}', '2026-11-28 21:37:25.031+00', NULL, NULL, 270553174016, 82409218048, NULL, '["POLE#.MP#"]', 'f7666f3dfbdbeab3', NULL),
	('68dc8560-ad4a-4067-80ea-2043bc70bbc2', 'reader 1', '/media/books/world 1/card', false, 'saltmarsh', '2026-11-28 21:36:50.678027+00', 'card', 'reader 1', '27aa350c-8fe9-49a2-9128-b1a30d20df9b', true, NULL, '{"disks": ["/media/books/world 1/card"], "known": true, "pastCache": true, "fileSystem": "/media/books/world 1/card"}', '2026-11-28 21:37:26.52+00', NULL, NULL, 270553174016, 82404352000, NULL, '["CURL#.MP#"]', 'f19a73e8f174116e', NULL);
INSERT INTO public.reading OVERRIDING SYSTEM VALUE VALUES
	(1, '2026-11-28 21:36:58.538795+00', '02b44778-5184-42e7-8939-76b4dbb3a0f4', '139595a2-0410-4d7a-89fa-43a1f4ba0e58', 'whole', NULL, 9, 628009, 0, '80d0b8cc-d771-4630-a102-fe058605d00f');
INSERT INTO public.recorded VALUES
	('5f92c9d4-a515-4672-a353-c453df10b407', '4ceb652f-6efa-483b-bbe5-b79e94adb5c1', '02b44778-5184-42e7-8939-76b4dbb3a0f4', NULL, 'Curlew A', 320, 180, '25/1', 'h264', 5, 386836, 10, '2026-11-28 21:36:55.65549+00'),
	('240c3558-5d19-4ed6-b3b1-1a9749176936', '4ceb652f-6efa-483b-bbe5-b79e94adb5c1', '02b44778-5184-42e7-8939-76b4dbb3a0f4', NULL, 'Curlew A', 640, 360, '25/1', 'h264', 1, 183089, 2, '2026-11-28 21:36:55.655823+00'),
	('e23698eb-9611-452f-b2c5-fa2902029bb2', '4ceb652f-6efa-483b-bbe5-b79e94adb5c1', '3f2c9a79-aa3a-4673-89ba-468697c28dcc', NULL, 'Pole 1', 160, 90, '25/1', 'h264', 2, 93520, 6.08, '2026-11-28 21:37:21.039649+00'),
	('0f3814ea-52b9-4bad-9a95-c1e99706707b', '4ceb652f-6efa-483b-bbe5-b79e94adb5c1', '5082b61d-61a2-4b2b-98f0-ee36dbb5e9a7', NULL, 'Pole 2', 160, 90, '25/1', 'h264', 2, 94689, 6.16, '2026-11-28 21:37:23.158062+00'),
	('2ffbd881-f991-4e98-afc9-6a0e9c872d09', '4ceb652f-6efa-483b-bbe5-b79e94adb5c1', '2cb2ba17-c900-4f38-884c-91cfc4b5ae7c', NULL, 'Pole 3', 160, 90, '25/1', 'h264', 2, 96092, 6.24, '2026-11-28 21:37:24.742716+00'),
	('5a203dbe-cad5-4a2f-b646-2288298b6aba', '4ceb652f-6efa-483b-bbe5-b79e94adb5c1', '27aa350c-8fe9-49a2-9128-b1a30d20df9b', NULL, 'Curlew A (2)', 320, 180, '25/1', 'h264', 2, 154792, 4, '2026-11-28 21:37:26.337983+00');
INSERT INTO public.review VALUES
	('434c4442-0a9e-4687-b528-e7eaaf8f6a21', 'keep', '[{"to": 20, "from": 5}]', 'take 0', NULL, NULL, '2026-11-28 21:36:58.894+00', NULL),
	('b94e3dfa-04e5-4e1d-88ff-41e399440dbc', 'maybe', '[]', 'take 1', NULL, NULL, '2026-11-28 21:36:58.913+00', NULL),
	('831ecd5a-4d7c-4090-a414-a1dbb12ce02c', 'reject', '[]', 'take 2', NULL, NULL, '2026-11-28 21:36:58.928+00', NULL),
	('f4cfd563-1454-40de-9c7c-abfe3ed19ef0', 'maybe', '[]', 'take 4', NULL, NULL, '2026-11-28 21:36:58.968+00', NULL),
	('5b3160b9-3aee-43e3-bfdf-fecc9f9f4bce', 'keep', '[{"to": 20, "from": 5}]', 'take 3', NULL, NULL, '2026-11-28 21:36:58.948+00', NULL);
INSERT INTO public.rig VALUES
	('775b47ce-e2a8-4976-a9ec-3e68e921de81', '4ceb652f-6efa-483b-bbe5-b79e94adb5c1', 'Pole', '“Pole”: 3 cards, 2 takes on each, of equal length.', '2026-11-28 21:37:25.207641+00');
INSERT INTO public.said OVERRIDING SYSTEM VALUE VALUES
	(1, '2026-11-28 21:36:57.346484+00', 'spot-played', '02b44778-5184-42e7-8939-76b4dbb3a0f4', 'dbbc3ae7-7a16-4f64-b195-b97ce1dd4438', NULL, 2, NULL, '{"clipId": "434c4442-0a9e-4687-b528-e7eaaf8f6a21", "seconds": 1}', NULL),
	(2, '2026-11-28 21:36:57.454833+00', 'answered', '02b44778-5184-42e7-8939-76b4dbb3a0f4', NULL, NULL, NULL, NULL, '{"key": "gap 15c46495cca2ea", "answer": "It was deleted in the camera."}', NULL),
	(3, '2026-11-28 21:36:57.496544+00', 'answered', '02b44778-5184-42e7-8939-76b4dbb3a0f4', NULL, NULL, NULL, NULL, '{"key": "twice 1d72241070b338", "answer": "It was deleted in the camera."}', NULL),
	(4, '2026-11-28 21:37:25.555628+00', 'formatted', '02b44778-5184-42e7-8939-76b4dbb3a0f4', NULL, NULL, NULL, NULL, '{}', NULL);
INSERT INTO public.seen OVERRIDING SYSTEM VALUE VALUES
	(1, '2026-11-28 21:36:52.842831+00', 'card', '02b44778-5184-42e7-8939-76b4dbb3a0f4', NULL, '68dc8560-ad4a-4067-80ea-2043bc70bbc2', '65024:5369699', '{"disks": ["/media/books/world 1/card"], "known": true, "pastCache": true, "fileSystem": "/media/books/world 1/card"}', '1194dd402ec63bba', 9, 628009, 0),
	(2, '2026-11-28 21:36:56.155+00', 'mirror', '02b44778-5184-42e7-8939-76b4dbb3a0f4', 'dbbc3ae7-7a16-4f64-b195-b97ce1dd4438', NULL, '', '{"disks": ["/media/books/world 1/slipway"], "known": true, "pastCache": true, "fileSystem": "/media/books/world 1/slipway"}', NULL, 0, 0, 0),
	(3, '2026-11-28 21:36:56.201+00', 'mirror', '02b44778-5184-42e7-8939-76b4dbb3a0f4', '139595a2-0410-4d7a-89fa-43a1f4ba0e58', NULL, '', '{"disks": ["/media/books/world 1/tide"], "known": true, "pastCache": true, "fileSystem": "/media/books/world 1/tide"}', NULL, 0, 0, 0),
	(4, '2026-11-28 21:37:20.287627+00', 'card', '3f2c9a79-aa3a-4673-89ba-468697c28dcc', NULL, 'ad2faa1f-d064-49c0-9fb1-35edb79d6681', '65024:5365771', '{"disks": ["name:vda"], "known": true, "pastCache": true, "fileSystem": "fs:65024"}', '4d08cd358089829d', 2, 93520, 0),
	(5, '2026-11-28 21:37:22.380684+00', 'card', '5082b61d-61a2-4b2b-98f0-ee36dbb5e9a7', NULL, '80b270f5-a010-4512-afe1-26bf5ce82644', '65024:5365908', '{"disks": ["name:vda"], "known": true, "pastCache": true, "fileSystem": "fs:65024"}', 'f93f8e7e63379952', 2, 94689, 0),
	(6, '2026-11-28 21:37:24.115184+00', 'card', '2cb2ba17-c900-4f38-884c-91cfc4b5ae7c', NULL, '19f4589d-7b63-4741-8933-f781bff11ce9', '65024:5366036', '{"disks": ["name:vda"], "known": true, "pastCache": true, "fileSystem": "fs:65024"}', 'f7666f3dfbdbeab3', 2, 96092, 0),
	(7, '2026-11-28 21:37:25.681484+00', 'card', '27aa350c-8fe9-49a2-9128-b1a30d20df9b', NULL, '68dc8560-ad4a-4067-80ea-2043bc70bbc2', '65024:5369699', '{"disks": ["/media/books/world 1/card"], "known": true, "pastCache": true, "fileSystem": "/media/books/world 1/card"}', 'f19a73e8f174116e', 2, 154792, 0),
	(8, '2026-11-28 21:37:26.908+00', 'mirror', '27aa350c-8fe9-49a2-9128-b1a30d20df9b', 'dbbc3ae7-7a16-4f64-b195-b97ce1dd4438', NULL, '', '{"disks": ["/media/books/world 1/slipway"], "known": true, "pastCache": true, "fileSystem": "/media/books/world 1/slipway"}', NULL, 0, 0, 0),
	(9, '2026-11-28 21:37:26.933+00', 'mirror', '27aa350c-8fe9-49a2-9128-b1a30d20df9b', '139595a2-0410-4d7a-89fa-43a1f4ba0e58', NULL, '', '{"disks": ["/media/books/world 1/tide"], "known": true, "pastCache": true, "fileSystem": "/media/books/world 1/tide"}', NULL, 0, 0, 0),
	(10, '2026-11-28 21:37:27.911+00', 'mirror', '27aa350c-8fe9-49a2-9128-b1a30d20df9b', '139595a2-0410-4d7a-89fa-43a1f4ba0e58', NULL, '65024:5366322', '{"disks": ["/media/books/world 1/tide"], "known": true, "pastCache": true, "fileSystem": "/media/books/world 1/tide"}', NULL, 1, 77396, 0);
INSERT INTO public.seen_change VALUES
	(1, '\x434c4950', 'there', 'folder', 0, 1795901812674.537),
	(1, '\x434c49502f43303034312e4d5034', 'there', 'file', 183089, 1795901812134.537),
	(1, '\x434c49502f43303034314d30312e584d4c', 'there', 'file', 17, 1795901812674.537),
	(1, '\x4443494d', 'there', 'folder', 0, 1795901811162.537),
	(1, '\x4443494d2f3130304355524c57', 'there', 'folder', 0, 1795901810450.537),
	(1, '\x4443494d2f3130304355524c572f4355524c303034312e4d5034', 'there', 'file', 77396, 1794650460000),
	(1, '\x4443494d2f3130304355524c572f4355524c303034322e4d5034', 'there', 'file', 77396, 1794650460000),
	(1, '\x4443494d2f3130304355524c572f4355524c303034342e4d5034', 'there', 'file', 77396, 1794650460000),
	(1, '\x4443494d2f3130314355524c57', 'there', 'folder', 0, 1795901811166.537),
	(1, '\x4443494d2f3130314355524c572f47583031303033342e4d5034', 'there', 'file', 77324, 1795901811166.406),
	(1, '\x4443494d2f3130314355524c572f47583032303033342e4d5034', 'there', 'file', 77324, 1795901811167.795),
	(1, '\x535542', 'there', 'folder', 0, 1795901812334.537),
	(1, '\x5355422f43303034315330332e4d5034', 'there', 'file', 58063, 1795901812662.537),
	(1, '\x6f64640a6e616d65', 'there', 'file', 4, 1795901812678.537),
	(4, '\x4443494d', 'there', 'folder', 0, 1795901839234.538),
	(4, '\x4443494d2f313030504f4c4553', 'there', 'folder', 0, 1795901839682.538),
	(4, '\x4443494d2f313030504f4c45532f504f4c45303030312e4d5034', 'there', 'file', 30827, 1795901839518.538),
	(4, '\x4443494d2f313030504f4c45532f504f4c45303030322e4d5034', 'there', 'file', 62693, 1795901839922.538),
	(5, '\x4443494d', 'there', 'folder', 0, 1795901841294.538),
	(5, '\x4443494d2f313030504f4c4553', 'there', 'folder', 0, 1795901841790.538),
	(5, '\x4443494d2f313030504f4c45532f504f4c45303030312e4d5034', 'there', 'file', 31361, 1795901841630.538),
	(5, '\x4443494d2f313030504f4c45532f504f4c45303030322e4d5034', 'there', 'file', 63328, 1795901842026.538),
	(6, '\x4443494d', 'there', 'folder', 0, 1795901843350.5383),
	(6, '\x4443494d2f313030504f4c4553', 'there', 'folder', 0, 1795901843666.5383),
	(6, '\x4443494d2f313030504f4c45532f504f4c45303030312e4d5034', 'there', 'file', 32080, 1795901843546.5383),
	(6, '\x4443494d2f313030504f4c45532f504f4c45303030322e4d5034', 'there', 'file', 64012, 1795901843826.5383),
	(7, '\x4443494d', 'there', 'folder', 0, 1795901845590.5383),
	(7, '\x4443494d2f3130304355524c57', 'there', 'folder', 0, 1795901845592.3926),
	(7, '\x4443494d2f3130304355524c572f4355524c303035312e4d5034', 'there', 'file', 77396, 1795901845590.5383),
	(7, '\x4443494d2f3130304355524c572f4355524c303035322e4d5034', 'there', 'file', 77396, 1795901845592.3926),
	(10, '\x4443494d2f3130304355524c572f4355524c303035322e4d5034', 'gone', 'file', NULL, NULL);
INSERT INTO public.setting VALUES
	('computer saltmarsh', '{"hashBytesPerSecond": 5627811773}');
INSERT INTO public.shot VALUES
	('1df675c6-208a-491e-ab4d-75898b4242ce', '4ceb652f-6efa-483b-bbe5-b79e94adb5c1', 0, 'Bow plank', NULL, '[]', '', NULL, '2026-11-28 21:36:58.847215+00');
INSERT INTO public.site VALUES
	('bca1de4c-e09b-44d6-90fe-9a987b0c2438', 'house', 'other', '2026-11-28 21:36:50.923054+00', NULL);
INSERT INTO public.sorted_change OVERRIDING SYSTEM VALUE VALUES
	(1, '4e57970f-1c9d-42b6-a389-25191df6699a', '4ceb652f-6efa-483b-bbe5-b79e94adb5c1', 'dbbc3ae7-7a16-4f64-b195-b97ce1dd4438', 'add', 'Video/B-roll/C0041.MP4', NULL, 2, '2026-11-28 21:36:59.143363+00', false),
	(2, '4e57970f-1c9d-42b6-a389-25191df6699a', '4ceb652f-6efa-483b-bbe5-b79e94adb5c1', 'dbbc3ae7-7a16-4f64-b195-b97ce1dd4438', 'add', 'Video/B-roll/CURL0044.MP4', NULL, 8, '2026-11-28 21:36:59.151582+00', false);
INSERT INTO public.sorted_file VALUES
	('dbbc3ae7-7a16-4f64-b195-b97ce1dd4438', 'Video/B-roll/C0041.MP4', '4ceb652f-6efa-483b-bbe5-b79e94adb5c1', 2, 183089, 1795901812134.537),
	('dbbc3ae7-7a16-4f64-b195-b97ce1dd4438', 'Video/B-roll/CURL0044.MP4', '4ceb652f-6efa-483b-bbe5-b79e94adb5c1', 8, 77396, 1794650460000);
INSERT INTO public.sorted_view VALUES
	('4ceb652f-6efa-483b-bbe5-b79e94adb5c1', 'dbbc3ae7-7a16-4f64-b195-b97ce1dd4438', '{"aRoll": [], "links": "hard", "which": "keep", "template": [{"path": "Video/A-roll", "takes": "a-roll"}, {"path": "Video/B-roll", "takes": "b-roll"}, {"path": "Audio/Music", "takes": "none"}, {"path": "Audio/Effects", "takes": "none"}, {"path": "Audio/Recorded", "takes": "sound"}, {"path": "Assets", "takes": "none"}, {"path": "Library", "takes": "none"}, {"path": "Output", "takes": "none"}], "editBegun": false}');
INSERT INTO public.task VALUES
	('0c9daa17-b029-4743-a94d-a2292c24f40f', 'render', 'done', 'Wide watch page from CURL0041.MP4', '4ceb652f-6efa-483b-bbe5-b79e94adb5c1', '02b44778-5184-42e7-8939-76b4dbb3a0f4', '{"clipId": "b94e3dfa-04e5-4e1d-88ff-41e399440dbc", "fields": "frame", "window": {"x": 0, "y": 0, "widthPx": 320, "heightPx": 180}, "colours": "stated", "volumeId": "dbbc3ae7-7a16-4f64-b195-b97ce1dd4438", "soundTrack": null, "destinationId": "wide-watch"}', '{"done": 100, "unit": "frames", "total": 100, "perSecond": 0}', 'Wide watch page on Slipway 1, 1.70 MB: 1 of 22 checks fail.', '["Own pixels: drawn 6.00 times as large instead of none invented"]', 'saltmarsh', 'c40cfabf-d4e4-4a2d-82ab-6b3f1845ed50', '2026-11-28 21:37:00.487437+00', '2026-11-28 21:37:18.677+00', 'b94e3dfa-04e5-4e1d-88ff-41e399440dbc wide-watch dbbc3ae7-7a16-4f64-b195-b97ce1dd4438 0 0 320 180 frame stated null', NULL, 0),
	('dc9dbb27-8600-47e9-91bc-bd3898452a3d', 'copy', 'done', 'Copy “Curlew A” to Slipway 1 and Tide 1', '4ceb652f-6efa-483b-bbe5-b79e94adb5c1', '02b44778-5184-42e7-8939-76b4dbb3a0f4', '{"plan": {"volumes": [{"copy": {"files": 9, "sizeBytes": 628009}, "keep": {"files": 0, "sizeBytes": 0}, "name": "Slipway 1", "conflict": {"files": 0, "sizeBytes": 0}, "volumeId": "dbbc3ae7-7a16-4f64-b195-b97ce1dd4438", "connected": true, "missingBytes": 0, "sharesRoomWith": []}, {"copy": {"files": 9, "sizeBytes": 628009}, "keep": {"files": 0, "sizeBytes": 0}, "name": "Tide 1", "conflict": {"files": 0, "sizeBytes": 0}, "volumeId": "139595a2-0410-4d7a-89fa-43a1f4ba0e58", "connected": true, "missingBytes": 0, "sharesRoomWith": []}]}, "loadId": "02b44778-5184-42e7-8939-76b4dbb3a0f4", "setAside": false, "volumeIds": ["dbbc3ae7-7a16-4f64-b195-b97ce1dd4438", "139595a2-0410-4d7a-89fa-43a1f4ba0e58"]}', '{"done": 2512036, "unit": "bytes", "total": 2512036, "volumes": [{"name": "Slipway 1", "total": 628009, "proved": 628009, "written": 628009, "volumeId": "dbbc3ae7-7a16-4f64-b195-b97ce1dd4438"}, {"name": "Tide 1", "total": 628009, "proved": 628009, "written": 628009, "volumeId": "139595a2-0410-4d7a-89fa-43a1f4ba0e58"}], "perSecond": 0}', 'All 9 files proved on Slipway 1 and Tide 1.', '[]', 'saltmarsh', '7c62144f-0c26-4ab9-aa96-e67160022b19', '2026-11-28 21:36:56.025562+00', '2026-11-28 21:36:56.805+00', '02b44778-5184-42e7-8939-76b4dbb3a0f4', NULL, 0),
	('b61b17a2-753f-48a8-b5f5-9d19a8048ff5', 'proxy', 'done', 'Proxy of CURL0041.MP4', '4ceb652f-6efa-483b-bbe5-b79e94adb5c1', '02b44778-5184-42e7-8939-76b4dbb3a0f4', '{"clipId": "b94e3dfa-04e5-4e1d-88ff-41e399440dbc", "volumeId": "dbbc3ae7-7a16-4f64-b195-b97ce1dd4438"}', '{"done": 50, "unit": "frames", "total": 50, "perSecond": 103}', 'CURL0041.MP4: 160×90 proxy on Slipway 1, equal to the original in every check.', '[]', 'saltmarsh', 'b1ec2f20-839d-4a86-b7fc-8748c029e163', '2026-11-28 21:36:59.470071+00', '2026-11-28 21:37:00.383+00', 'b94e3dfa-04e5-4e1d-88ff-41e399440dbc', NULL, 0),
	('bf62e79d-8e93-454a-a03d-43bfa3cf07ec', 'twin', 'done', 'Read the twin “second slot” of “Curlew A”', '4ceb652f-6efa-483b-bbe5-b79e94adb5c1', '02b44778-5184-42e7-8939-76b4dbb3a0f4', '{"loadId": "02b44778-5184-42e7-8939-76b4dbb3a0f4", "twinId": "ca2d8076-9375-49f3-bd11-95a95c65fc42"}', '{"done": 628009, "unit": "bytes", "total": 628009, "perSecond": 0}', 'All 9 files, 628 kB of the twin second slot were read and are what was copied.', '[]', 'saltmarsh', '6fd6b37b-5f22-4096-8eb8-2702ff22fbf4', '2026-11-28 21:36:57.961654+00', '2026-11-28 21:36:58.319+00', 'ca2d8076-9375-49f3-bd11-95a95c65fc42', NULL, 0),
	('d79839c8-9143-41f1-a33c-623d4f2d5ea0', 'scan', 'done', 'Look at the card in reader 1', '4ceb652f-6efa-483b-bbe5-b79e94adb5c1', NULL, '{"label": "Curlew A", "readerId": "68dc8560-ad4a-4067-80ea-2043bc70bbc2", "productionId": "4ceb652f-6efa-483b-bbe5-b79e94adb5c1"}', '{"done": 7, "unit": "files", "total": 7, "perSecond": 2}', '5 clips and 2 other files on reader 1, 628 kB.', '[]', 'saltmarsh', 'e0a2a961-3a59-4ca8-aef9-cb09b3d06f80', '2026-11-28 21:36:52.718817+00', '2026-11-28 21:36:55.781+00', '68dc8560-ad4a-4067-80ea-2043bc70bbc2', NULL, 0),
	('4e57970f-1c9d-42b6-a389-25191df6699a', 'sort', 'done', 'Sort “Production 1” on Slipway 1', '4ceb652f-6efa-483b-bbe5-b79e94adb5c1', NULL, '{"undo": false, "productionId": "4ceb652f-6efa-483b-bbe5-b79e94adb5c1"}', '{"done": 2, "unit": "files", "total": 2, "perSecond": 0}', 'Sorted view on Slipway 1: 2 files added.', '[]', 'saltmarsh', '98b48daa-0a71-4639-9642-cee37766d2dd', '2026-11-28 21:36:59.038159+00', '2026-11-28 21:36:59.304+00', '4ceb652f-6efa-483b-bbe5-b79e94adb5c1', NULL, 0),
	('993562b1-6a31-4f6b-917b-44e7df3387f4', 'check', 'done', 'Read “Curlew A” again on Tide 1', '4ceb652f-6efa-483b-bbe5-b79e94adb5c1', '02b44778-5184-42e7-8939-76b4dbb3a0f4', '{"how": "whole", "seed": "3ed466e6-4673-4527-b256-4ff05f42ed78", "loadId": "02b44778-5184-42e7-8939-76b4dbb3a0f4", "volumeIds": ["139595a2-0410-4d7a-89fa-43a1f4ba0e58"]}', '{"done": 628009, "unit": "bytes", "total": 628009, "perSecond": 0}', 'Tide 1: all 9 files, 628 kB read again and equal.', '[]', 'saltmarsh', '170bf2da-c130-4d0c-8087-99e232919e2d', '2026-11-28 21:36:58.352934+00', '2026-11-28 21:36:58.74+00', '02b44778-5184-42e7-8939-76b4dbb3a0f4', NULL, 0),
	('2228d415-dd7d-4adb-a6cc-745b89a00fd1', 'bag', 'done', 'Shelve CURL0041 wide watch page.mp4 on Tide 1', '4ceb652f-6efa-483b-bbe5-b79e94adb5c1', NULL, '{"volumeId": "139595a2-0410-4d7a-89fa-43a1f4ba0e58", "deliverableId": "75e2d54a-d0ba-40b7-b423-ed85d3663482"}', '{"done": 3396548, "unit": "bytes", "total": 3396548, "perSecond": 0}', 'A bag with 2 files, 1.70 MB, is on Tide 1, every file read back and equal.', '[]', 'saltmarsh', 'd11a7066-4002-4eaa-956f-f8166a6868b6', '2026-11-28 21:37:18.781959+00', '2026-11-28 21:37:19.053+00', '75e2d54a-d0ba-40b7-b423-ed85d3663482 139595a2-0410-4d7a-89fa-43a1f4ba0e58', NULL, 0),
	('9ce3dd58-b0b1-4ed5-8389-16bf8f2dd3ea', 'scan', 'done', 'Look at the card in lens 2', '4ceb652f-6efa-483b-bbe5-b79e94adb5c1', NULL, '{"label": "Pole 2", "readerId": "80b270f5-a010-4512-afe1-26bf5ce82644", "productionId": "4ceb652f-6efa-483b-bbe5-b79e94adb5c1"}', '{"done": 2, "unit": "files", "total": 2, "perSecond": 2}', '2 clips and 0 other files on lens 2, 94.7 kB.', '[]', 'saltmarsh', '4aa8e6ff-2b8b-4455-b125-834668007720', '2026-11-28 21:37:22.317863+00', '2026-11-28 21:37:23.324+00', '80b270f5-a010-4512-afe1-26bf5ce82644', NULL, 0),
	('cd8a34a2-326d-4340-8173-c2eb65d69293', 'scan', 'done', 'Look at the card in lens 1', '4ceb652f-6efa-483b-bbe5-b79e94adb5c1', NULL, '{"label": "Pole 1", "readerId": "ad2faa1f-d064-49c0-9fb1-35edb79d6681", "productionId": "4ceb652f-6efa-483b-bbe5-b79e94adb5c1"}', '{"done": 2, "unit": "files", "total": 2, "perSecond": 3}', '2 clips and 0 other files on lens 1, 93.5 kB.', '[]', 'saltmarsh', '416821d8-a792-43b8-a1d3-284bf4f00dcf', '2026-11-28 21:37:20.167506+00', '2026-11-28 21:37:21.203+00', 'ad2faa1f-d064-49c0-9fb1-35edb79d6681', NULL, 0),
	('cdd58470-2bfe-4540-8484-4abf0f16fa10', 'scan', 'done', 'Look at the card in lens 3', '4ceb652f-6efa-483b-bbe5-b79e94adb5c1', NULL, '{"label": "Pole 3", "readerId": "19f4589d-7b63-4741-8933-f781bff11ce9", "productionId": "4ceb652f-6efa-483b-bbe5-b79e94adb5c1"}', '{"done": 2, "unit": "files", "total": 2, "perSecond": 3}', '2 clips and 0 other files on lens 3, 96.1 kB.', '[]', 'saltmarsh', '9f4d8c17-e58b-4024-8ea5-be2a6ff02bed', '2026-11-28 21:37:24.068648+00', '2026-11-28 21:37:25.036+00', '19f4589d-7b63-4741-8933-f781bff11ce9', NULL, 0),
	('7d9837d0-6c4f-4be8-bb49-53c1ce73f7d8', 'scan', 'done', 'Look at the card in reader 1', '4ceb652f-6efa-483b-bbe5-b79e94adb5c1', NULL, '{"label": "Curlew A", "readerId": "68dc8560-ad4a-4067-80ea-2043bc70bbc2", "productionId": "4ceb652f-6efa-483b-bbe5-b79e94adb5c1"}', '{"done": 2, "unit": "files", "total": 2, "perSecond": 3}', '2 clips and 0 other files on reader 1, 155 kB.', '[]', 'saltmarsh', 'e249a5de-c506-4de4-8e1b-4e1ec2f2e99e', '2026-11-28 21:37:25.603363+00', '2026-11-28 21:37:26.649+00', '68dc8560-ad4a-4067-80ea-2043bc70bbc2', NULL, 0),
	('d583bf8e-6b51-4f34-9db3-7e74e2ce46a4', 'copy', 'done', 'Copy “Curlew A (2)” to Slipway 1 and Tide 1', '4ceb652f-6efa-483b-bbe5-b79e94adb5c1', '27aa350c-8fe9-49a2-9128-b1a30d20df9b', '{"plan": {"volumes": [{"copy": {"files": 2, "sizeBytes": 154792}, "keep": {"files": 0, "sizeBytes": 0}, "name": "Slipway 1", "conflict": {"files": 0, "sizeBytes": 0}, "volumeId": "dbbc3ae7-7a16-4f64-b195-b97ce1dd4438", "connected": true, "missingBytes": 0, "sharesRoomWith": []}, {"copy": {"files": 2, "sizeBytes": 154792}, "keep": {"files": 0, "sizeBytes": 0}, "name": "Tide 1", "conflict": {"files": 0, "sizeBytes": 0}, "volumeId": "139595a2-0410-4d7a-89fa-43a1f4ba0e58", "connected": true, "missingBytes": 0, "sharesRoomWith": []}]}, "loadId": "27aa350c-8fe9-49a2-9128-b1a30d20df9b", "setAside": false, "volumeIds": ["dbbc3ae7-7a16-4f64-b195-b97ce1dd4438", "139595a2-0410-4d7a-89fa-43a1f4ba0e58"]}', '{"done": 619168, "unit": "bytes", "total": 619168, "volumes": [{"name": "Slipway 1", "total": 154792, "proved": 154792, "written": 154792, "volumeId": "dbbc3ae7-7a16-4f64-b195-b97ce1dd4438"}, {"name": "Tide 1", "total": 154792, "proved": 154792, "written": 154792, "volumeId": "139595a2-0410-4d7a-89fa-43a1f4ba0e58"}], "perSecond": 0}', 'All 2 files proved on Slipway 1 and Tide 1.', '[]', 'saltmarsh', 'b3119056-543d-4293-847f-86425c1d2323', '2026-11-28 21:37:26.809669+00', '2026-11-28 21:37:27.508+00', '27aa350c-8fe9-49a2-9128-b1a30d20df9b', NULL, 0);
INSERT INTO public.tool_child VALUES
	('a4eb4a3e-26bc-455e-b39d-4397a053506f', 25719, '96041'),
	('a4eb4a3e-26bc-455e-b39d-4397a053506f', 25720, '96042'),
	('a4eb4a3e-26bc-455e-b39d-4397a053506f', 25731, '96069'),
	('a4eb4a3e-26bc-455e-b39d-4397a053506f', 25740, '96085'),
	('a4eb4a3e-26bc-455e-b39d-4397a053506f', 25744, '96093'),
	('a4eb4a3e-26bc-455e-b39d-4397a053506f', 25746, '96110'),
	('a4eb4a3e-26bc-455e-b39d-4397a053506f', 25747, '96115'),
	('a4eb4a3e-26bc-455e-b39d-4397a053506f', 25759, '96144'),
	('a4eb4a3e-26bc-455e-b39d-4397a053506f', 25760, '96145'),
	('a4eb4a3e-26bc-455e-b39d-4397a053506f', 25781, '96186'),
	('a4eb4a3e-26bc-455e-b39d-4397a053506f', 25782, '96188'),
	('a4eb4a3e-26bc-455e-b39d-4397a053506f', 25803, '96243'),
	('a4eb4a3e-26bc-455e-b39d-4397a053506f', 25804, '96244'),
	('a4eb4a3e-26bc-455e-b39d-4397a053506f', 25814, '96275'),
	('03289816-c23d-4b8e-98d9-2e6fa0374022', 25928, '96700'),
	('03289816-c23d-4b8e-98d9-2e6fa0374022', 25956, '96739'),
	('03289816-c23d-4b8e-98d9-2e6fa0374022', 25958, '96752'),
	('12bafcb1-8941-480b-b321-a77ddd3cbb5b', 25967, '96803'),
	('12bafcb1-8941-480b-b321-a77ddd3cbb5b', 25979, '97256'),
	('12bafcb1-8941-480b-b321-a77ddd3cbb5b', 25998, '98187'),
	('12bafcb1-8941-480b-b321-a77ddd3cbb5b', 25999, '98207'),
	('12bafcb1-8941-480b-b321-a77ddd3cbb5b', 26006, '98288'),
	('12bafcb1-8941-480b-b321-a77ddd3cbb5b', 26017, '98588'),
	('9488f4a1-aac6-4a7d-9226-1f61974a4079', 26044, '98777'),
	('9488f4a1-aac6-4a7d-9226-1f61974a4079', 26045, '98778'),
	('9488f4a1-aac6-4a7d-9226-1f61974a4079', 26046, '98814'),
	('9488f4a1-aac6-4a7d-9226-1f61974a4079', 26047, '98815'),
	('4158a370-792b-47bf-838f-1fb0020a45e6', 26092, '98985'),
	('4158a370-792b-47bf-838f-1fb0020a45e6', 26093, '98985'),
	('4158a370-792b-47bf-838f-1fb0020a45e6', 26094, '99011'),
	('4158a370-792b-47bf-838f-1fb0020a45e6', 26095, '99012'),
	('6f43571c-3c6e-4631-a496-4b0cc4a1d5b9', 26143, '99158'),
	('6f43571c-3c6e-4631-a496-4b0cc4a1d5b9', 26144, '99158'),
	('6f43571c-3c6e-4631-a496-4b0cc4a1d5b9', 26145, '99188'),
	('6f43571c-3c6e-4631-a496-4b0cc4a1d5b9', 26146, '99189'),
	('6aba3e36-9781-4e97-8b81-727fb4b79a5b', 26184, '99314'),
	('6aba3e36-9781-4e97-8b81-727fb4b79a5b', 26185, '99315'),
	('6aba3e36-9781-4e97-8b81-727fb4b79a5b', 26186, '99343'),
	('6aba3e36-9781-4e97-8b81-727fb4b79a5b', 26187, '99343');
INSERT INTO public.twin VALUES
	('ca2d8076-9375-49f3-bd11-95a95c65fc42', '02b44778-5184-42e7-8939-76b4dbb3a0f4', 'reader b9d5c163-737b-45e0-a00e-8ad557848a42', 'second slot', false, '2026-11-28 21:36:57.670287+00', '2026-11-28 21:36:57.671+00');
INSERT INTO public.twin_reading OVERRIDING SYSTEM VALUE VALUES
	(1, '2026-11-28 21:36:58.070439+00', 'ca2d8076-9375-49f3-bd11-95a95c65fc42', '47ba4f670c1b6eb5', 9, 0, 0, 628009, '504227db-7fe7-4eff-9e22-236b874046ac');
INSERT INTO public.volume VALUES
	('dbbc3ae7-7a16-4f64-b195-b97ce1dd4438', 'Slipway 1', 'archive', false, 270553174016, '2026-11-28 21:36:50.925345+00', 'bca1de4c-e09b-44d6-90fe-9a987b0c2438', NULL),
	('139595a2-0410-4d7a-89fa-43a1f4ba0e58', 'Tide 1', 'archive', false, 270553174016, '2026-11-28 21:36:51.079421+00', 'bca1de4c-e09b-44d6-90fe-9a987b0c2438', NULL);
SELECT pg_catalog.setval('public.copy_queue_place_seq', 1, false);
SELECT pg_catalog.setval('public.event_id_seq', 5, true);
SELECT pg_catalog.setval('public.ledger_id_seq', 1, false);
SELECT pg_catalog.setval('public.load_entry_id_seq', 30, true);
SELECT pg_catalog.setval('public.proof_id_seq', 35, true);
SELECT pg_catalog.setval('public.reading_id_seq', 1, true);
SELECT pg_catalog.setval('public.said_id_seq', 4, true);
SELECT pg_catalog.setval('public.seen_id_seq', 10, true);
SELECT pg_catalog.setval('public.sorted_change_id_seq', 2, true);
SELECT pg_catalog.setval('public.task_order_id_seq', 1, false);
SELECT pg_catalog.setval('public.twin_reading_id_seq', 1, true);
ALTER TABLE ONLY public.appeared
    ADD CONSTRAINT appeared_host_path_key UNIQUE (host, path);
ALTER TABLE ONLY public.appeared
    ADD CONSTRAINT appeared_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.attempt
    ADD CONSTRAINT attempt_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.bag
    ADD CONSTRAINT bag_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.bench_card
    ADD CONSTRAINT bench_card_pkey PRIMARY KEY (name);
ALTER TABLE ONLY public.bench_device
    ADD CONSTRAINT bench_device_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.camera
    ADD CONSTRAINT camera_name_key UNIQUE (name);
ALTER TABLE ONLY public.camera
    ADD CONSTRAINT camera_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.card
    ADD CONSTRAINT card_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.client
    ADD CONSTRAINT client_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.clip
    ADD CONSTRAINT clip_entry_id_key UNIQUE (entry_id);
ALTER TABLE ONLY public.clip_file
    ADD CONSTRAINT clip_file_pkey PRIMARY KEY (clip_id, entry_id);
ALTER TABLE ONLY public.clip
    ADD CONSTRAINT clip_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.copy_file
    ADD CONSTRAINT copy_file_pkey PRIMARY KEY (volume_id, entry_id);
ALTER TABLE ONLY public.mirror
    ADD CONSTRAINT copy_plan_pkey PRIMARY KEY (load_id, volume_id);
ALTER TABLE ONLY public.copy_queue
    ADD CONSTRAINT copy_queue_pkey PRIMARY KEY (load_id);
ALTER TABLE ONLY public.day_sheet
    ADD CONSTRAINT day_sheet_pkey PRIMARY KEY (production_id);
ALTER TABLE ONLY public.deliverable
    ADD CONSTRAINT deliverable_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.journal
    ADD CONSTRAINT event_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.kysely_migration_lock
    ADD CONSTRAINT kysely_migration_lock_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.kysely_migration
    ADD CONSTRAINT kysely_migration_pkey PRIMARY KEY (name);
ALTER TABLE ONLY public.ledger
    ADD CONSTRAINT ledger_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.load_entry
    ADD CONSTRAINT load_entry_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.load_finding
    ADD CONSTRAINT load_finding_pkey PRIMARY KEY (load_id, kind);
ALTER TABLE ONLY public.load
    ADD CONSTRAINT load_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.load_sample
    ADD CONSTRAINT load_sample_pkey PRIMARY KEY (entry_id);
ALTER TABLE ONLY public.load_summary
    ADD CONSTRAINT load_summary_pkey PRIMARY KEY (load_id, production_id);
ALTER TABLE ONLY public.mount
    ADD CONSTRAINT mount_pkey PRIMARY KEY (volume_id, host);
ALTER TABLE ONLY public.offload
    ADD CONSTRAINT offload_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.plan
    ADD CONSTRAINT plan_pkey PRIMARY KEY (production_id);
ALTER TABLE ONLY public.planned_camera
    ADD CONSTRAINT planned_camera_pkey PRIMARY KEY (production_id, camera_id);
ALTER TABLE ONLY public.planned_card
    ADD CONSTRAINT planned_card_pkey PRIMARY KEY (production_id, card_id);
ALTER TABLE ONLY public.planned_takes
    ADD CONSTRAINT planned_takes_pkey PRIMARY KEY (production_id, place);
ALTER TABLE ONLY public.production_bytes
    ADD CONSTRAINT production_bytes_pkey PRIMARY KEY (production_id, volume_id, byte_class);
ALTER TABLE ONLY public.production
    ADD CONSTRAINT production_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.proof
    ADD CONSTRAINT proof_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.proxy
    ADD CONSTRAINT proxy_clip_id_key UNIQUE (clip_id);
ALTER TABLE ONLY public.proxy
    ADD CONSTRAINT proxy_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.proxy_sample
    ADD CONSTRAINT proxy_sample_pkey PRIMARY KEY (clip_id);
ALTER TABLE ONLY public.reader
    ADD CONSTRAINT reader_name_key UNIQUE (name);
ALTER TABLE ONLY public.reader
    ADD CONSTRAINT reader_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.reader
    ADD CONSTRAINT reader_root_path_key UNIQUE (root_path);
ALTER TABLE ONLY public.reading
    ADD CONSTRAINT reading_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.recorded
    ADD CONSTRAINT recorded_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.recording_mode
    ADD CONSTRAINT recording_mode_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.review
    ADD CONSTRAINT review_pkey PRIMARY KEY (clip_id);
ALTER TABLE ONLY public.rig
    ADD CONSTRAINT rig_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.rig
    ADD CONSTRAINT rig_production_id_name_key UNIQUE (production_id, name);
ALTER TABLE ONLY public.said
    ADD CONSTRAINT said_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.seen_change
    ADD CONSTRAINT seen_change_pkey PRIMARY KEY (seen_id, path);
ALTER TABLE ONLY public.seen
    ADD CONSTRAINT seen_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.setting
    ADD CONSTRAINT setting_pkey PRIMARY KEY (key);
ALTER TABLE ONLY public.shot
    ADD CONSTRAINT shot_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.site
    ADD CONSTRAINT site_name_key UNIQUE (name);
ALTER TABLE ONLY public.site
    ADD CONSTRAINT site_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.sorted_change
    ADD CONSTRAINT sorted_change_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.sorted_file
    ADD CONSTRAINT sorted_file_pkey PRIMARY KEY (volume_id, path);
ALTER TABLE ONLY public.sorted_view
    ADD CONSTRAINT sorted_view_pkey PRIMARY KEY (production_id);
ALTER TABLE ONLY public.task_order
    ADD CONSTRAINT task_order_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.task
    ADD CONSTRAINT task_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.tool_child
    ADD CONSTRAINT tool_child_pkey PRIMARY KEY (attempt_id, pid, started_ticks);
ALTER TABLE ONLY public.twin
    ADD CONSTRAINT twin_load_id_key_key UNIQUE (load_id, key);
ALTER TABLE ONLY public.twin
    ADD CONSTRAINT twin_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.twin_reading
    ADD CONSTRAINT twin_reading_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.volume
    ADD CONSTRAINT volume_name_key UNIQUE (name);
ALTER TABLE ONLY public.volume
    ADD CONSTRAINT volume_pkey PRIMARY KEY (id);
CREATE INDEX attempt_open ON public.attempt USING btree (host) WHERE (ended_at IS NULL);
CREATE INDEX attempt_task ON public.attempt USING btree (task_id);
CREATE INDEX bag_deliverable ON public.bag USING btree (deliverable_id);
CREATE INDEX bag_newest ON public.bag USING btree (production_id, written_at DESC, id DESC);
CREATE INDEX bag_production ON public.bag USING btree (production_id);
CREATE INDEX bag_volume ON public.bag USING btree (volume_id);
CREATE UNIQUE INDEX card_name ON public.card USING btree (lower(name));
CREATE UNIQUE INDEX client_name ON public.client USING btree (lower(name));
CREATE INDEX clip_file_entry ON public.clip_file USING btree (entry_id);
CREATE INDEX clip_film_path ON public.clip USING btree (production_id, sort_path, id) WHERE (shown AND has_video);
CREATE INDEX clip_film_proxy ON public.clip USING btree (production_id, proxy, sort_path, id) WHERE (shown AND has_video);
CREATE INDEX clip_film_size ON public.clip USING btree (production_id, size_bytes, id) WHERE (shown AND has_video);
CREATE INDEX clip_filmed ON public.clip USING btree (production_id, filmed_order, id) WHERE shown;
CREATE INDEX clip_lens ON public.clip USING btree (lens_of) WHERE (lens_of IS NOT NULL);
CREATE INDEX clip_lens_production ON public.clip USING btree (production_id) WHERE (lens_of IS NOT NULL);
CREATE INDEX clip_load ON public.clip USING btree (load_id);
CREATE INDEX clip_load_path ON public.clip USING btree (load_id, sort_path, id) WHERE shown;
CREATE INDEX clip_load_recorded ON public.clip USING btree (load_id, recorded_at, id) WHERE shown;
CREATE INDEX clip_load_seconds ON public.clip USING btree (load_id, seconds, id) WHERE shown;
CREATE INDEX clip_load_size ON public.clip USING btree (load_id, size_bytes, id) WHERE shown;
CREATE INDEX clip_member ON public.clip USING btree (member_of) WHERE (member_of IS NOT NULL);
CREATE INDEX clip_name_begin ON public.clip USING btree (lower(name) text_pattern_ops);
CREATE INDEX clip_path ON public.clip USING btree (production_id, sort_path, id) WHERE shown;
CREATE INDEX clip_production ON public.clip USING btree (production_id);
CREATE INDEX clip_same ON public.clip USING btree (same_as) WHERE (same_as IS NOT NULL);
CREATE INDEX clip_take ON public.clip USING btree (take_id) WHERE (take_id IS NOT NULL);
CREATE INDEX clip_words ON public.clip USING gin (public.search_words(name));
CREATE INDEX copy_file_copy ON public.copy_file USING btree (load_id, volume_id, on_card, standing, proved_at);
CREATE INDEX copy_file_entry ON public.copy_file USING btree (entry_id);
CREATE INDEX copy_file_proof ON public.copy_file USING btree (proof_id);
CREATE INDEX copy_plan_volume ON public.mirror USING btree (volume_id);
CREATE INDEX deliverable_clip ON public.deliverable USING btree (clip_id);
CREATE INDEX deliverable_newest ON public.deliverable USING btree (production_id, made_at DESC, id DESC);
CREATE INDEX deliverable_production ON public.deliverable USING btree (production_id);
CREATE INDEX deliverable_volume ON public.deliverable USING btree (volume_id);
CREATE INDEX event_clip ON public.journal USING btree (clip_id);
CREATE INDEX event_load ON public.journal USING btree (load_id, kind);
CREATE INDEX event_production ON public.journal USING btree (production_id);
CREATE INDEX event_volume ON public.journal USING btree (volume_id);
CREATE INDEX ledger_production ON public.ledger USING btree (production_id);
CREATE INDEX ledger_volume ON public.ledger USING btree (volume_id);
CREATE INDEX load_camera ON public.load USING btree (camera_id);
CREATE INDEX load_card ON public.load USING btree (card_id);
CREATE UNIQUE INDEX load_entry_current ON public.load_entry USING btree (load_id, path) WHERE (state <> 'replaced'::text);
CREATE INDEX load_entry_load ON public.load_entry USING btree (load_id, path);
CREATE INDEX load_entry_odd ON public.load_entry USING btree (load_id) WHERE (odd AND (kind = 'file'::text));
CREATE INDEX load_newest ON public.load USING btree (production_id, created_at DESC, id DESC);
CREATE INDEX load_production ON public.load USING btree (production_id);
CREATE INDEX load_reader ON public.load USING btree (reader_id);
CREATE INDEX load_rig ON public.load USING btree (rig_id) WHERE (rig_id IS NOT NULL);
CREATE INDEX load_sample_load ON public.load_sample USING btree (load_id);
CREATE INDEX load_summary_production ON public.load_summary USING btree (production_id);
CREATE INDEX load_volume_uid ON public.load USING btree (volume_uid) WHERE (volume_uid IS NOT NULL);
CREATE INDEX mirror_seen ON public.mirror USING btree (seen_id);
CREATE INDEX offload_camera ON public.offload USING btree (camera_id);
CREATE INDEX offload_load ON public.offload USING btree (load_id);
CREATE INDEX offload_production ON public.offload USING btree (production_id);
CREATE INDEX planned_camera_camera ON public.planned_camera USING btree (camera_id);
CREATE INDEX planned_card_camera ON public.planned_card USING btree (camera_id);
CREATE INDEX planned_card_card ON public.planned_card USING btree (card_id);
CREATE INDEX planned_takes_camera ON public.planned_takes USING btree (camera_id);
CREATE INDEX planned_takes_mode ON public.planned_takes USING btree (mode_id);
CREATE INDEX production_bytes_volume ON public.production_bytes USING btree (volume_id);
CREATE INDEX production_client ON public.production USING btree (client_id);
CREATE UNIQUE INDEX production_folder ON public.production USING btree (lower(folder));
CREATE INDEX production_newest ON public.production USING btree (created_at DESC, id DESC);
CREATE INDEX proof_bag ON public.proof USING btree (bag_id) WHERE (bag_id IS NOT NULL);
CREATE INDEX proof_clip ON public.proof USING btree (clip_id) WHERE (clip_id IS NOT NULL);
CREATE INDEX proof_deliverable ON public.proof USING btree (deliverable_id) WHERE (deliverable_id IS NOT NULL);
CREATE INDEX proof_entry ON public.proof USING btree (entry_id, volume_id, id DESC);
CREATE INDEX proof_load ON public.proof USING btree (load_id, volume_id, id DESC);
CREATE INDEX proof_volume ON public.proof USING btree (volume_id);
CREATE INDEX proxy_volume ON public.proxy USING btree (volume_id);
CREATE INDEX reader_load ON public.reader USING btree (load_id);
CREATE UNIQUE INDEX reader_name ON public.reader USING btree (lower(name));
CREATE UNIQUE INDEX reader_place ON public.reader USING btree (host, root_path);
CREATE INDEX reader_twin ON public.reader USING btree (twin_id) WHERE (twin_id IS NOT NULL);
CREATE INDEX reading_copy ON public.reading USING btree (load_id, volume_id, id DESC);
CREATE INDEX reading_volume ON public.reading USING btree (volume_id);
CREATE INDEX recorded_camera ON public.recorded USING btree (camera_id);
CREATE INDEX recorded_load ON public.recorded USING btree (load_id);
CREATE INDEX recorded_production ON public.recorded USING btree (production_id);
CREATE INDEX recording_mode_camera ON public.recording_mode USING btree (camera_id);
CREATE INDEX review_shot ON public.review USING btree (shot_id) WHERE (shot_id IS NOT NULL);
CREATE INDEX said_entry ON public.said USING btree (entry_id);
CREATE INDEX said_load ON public.said USING btree (load_id, kind, id DESC);
CREATE INDEX said_other ON public.said USING btree (other_volume_id);
CREATE INDEX said_twin ON public.said USING btree (twin_id) WHERE (twin_id IS NOT NULL);
CREATE INDEX said_volume ON public.said USING btree (volume_id);
CREATE INDEX seen_card ON public.seen USING btree (load_id, id DESC) WHERE (place = 'card'::text);
CREATE INDEX seen_place ON public.seen USING btree (load_id, volume_id, id DESC);
CREATE INDEX seen_print ON public.seen USING btree (print);
CREATE INDEX seen_reader ON public.seen USING btree (reader_id, id DESC);
CREATE INDEX seen_volume ON public.seen USING btree (volume_id);
CREATE INDEX shot_camera ON public.shot USING btree (camera_id);
CREATE INDEX shot_production ON public.shot USING btree (production_id, place, id);
CREATE INDEX sorted_change_entry ON public.sorted_change USING btree (entry_id);
CREATE INDEX sorted_change_production ON public.sorted_change USING btree (production_id, id DESC);
CREATE INDEX sorted_change_volume ON public.sorted_change USING btree (volume_id);
CREATE INDEX sorted_file_entry ON public.sorted_file USING btree (entry_id);
CREATE INDEX sorted_file_production ON public.sorted_file USING btree (production_id, volume_id);
CREATE INDEX sorted_view_volume ON public.sorted_view USING btree (volume_id);
CREATE INDEX task_created ON public.task USING btree (created_at DESC);
CREATE UNIQUE INDEX task_idempotency ON public.task USING btree (idempotency_key);
CREATE INDEX task_load ON public.task USING btree (load_id);
CREATE UNIQUE INDEX task_one_open ON public.task USING btree (kind, subject) WHERE (state = ANY (ARRAY['queued'::text, 'running'::text, 'paused'::text]));
CREATE INDEX task_order_open ON public.task_order USING btree (task_id) WHERE (obeyed_at IS NULL);
CREATE INDEX task_production ON public.task USING btree (production_id);
CREATE INDEX task_state ON public.task USING btree (state);
CREATE INDEX twin_reading_latest ON public.twin_reading USING btree (twin_id, id);
CREATE UNIQUE INDEX volume_name ON public.volume USING btree (lower(name));
CREATE INDEX volume_site ON public.volume USING btree (site_id);
CREATE TRIGGER clip_recorded BEFORE INSERT OR UPDATE OF probe, shift_ms, path_text ON public.clip FOR EACH ROW EXECUTE FUNCTION public.clip_recorded();
CREATE TRIGGER count_clips_insert AFTER INSERT ON public.clip REFERENCING NEW TABLE AS new_clips FOR EACH STATEMENT EXECUTE FUNCTION public.count_clips_insert();
CREATE TRIGGER count_clips_update AFTER UPDATE ON public.clip REFERENCING OLD TABLE AS old_clips NEW TABLE AS new_clips FOR EACH STATEMENT EXECUTE FUNCTION public.count_clips_update();
CREATE TRIGGER count_copy_files_insert AFTER INSERT ON public.copy_file REFERENCING NEW TABLE AS new_files FOR EACH STATEMENT EXECUTE FUNCTION public.count_copy_files_insert();
CREATE TRIGGER count_copy_files_update AFTER UPDATE ON public.copy_file REFERENCING OLD TABLE AS old_files NEW TABLE AS new_files FOR EACH STATEMENT EXECUTE FUNCTION public.count_copy_files_update();
CREATE TRIGGER count_ledger_bytes AFTER INSERT ON public.ledger FOR EACH ROW EXECUTE FUNCTION public.count_ledger_bytes();
CREATE TRIGGER count_mirror_bytes AFTER UPDATE OF copied_bytes ON public.mirror FOR EACH ROW WHEN ((new.copied_bytes <> old.copied_bytes)) EXECUTE FUNCTION public.count_mirror_bytes();
CREATE TRIGGER count_output_bytes AFTER INSERT ON public.bag FOR EACH ROW EXECUTE FUNCTION public.count_output_bytes();
CREATE TRIGGER count_output_bytes AFTER INSERT ON public.deliverable FOR EACH ROW EXECUTE FUNCTION public.count_output_bytes();
CREATE TRIGGER count_proxy_bytes AFTER INSERT OR UPDATE ON public.proxy FOR EACH ROW EXECUTE FUNCTION public.count_proxy_bytes();
CREATE TRIGGER follow_entry AFTER UPDATE OF state, copied ON public.load_entry FOR EACH ROW WHEN (((old.state <> new.state) OR ((new.state = 'gone'::text) AND (old.copied <> new.copied)))) EXECUTE FUNCTION public.follow_entry();
CREATE TRIGGER move_proxy_bytes AFTER UPDATE OF production_id ON public.clip FOR EACH ROW WHEN ((old.production_id <> new.production_id)) EXECUTE FUNCTION public.move_proxy_bytes();
CREATE TRIGGER new_load_summary AFTER INSERT ON public.load FOR EACH ROW EXECUTE FUNCTION public.new_load_summary();
ALTER TABLE ONLY public.attempt
    ADD CONSTRAINT attempt_task_id_fkey FOREIGN KEY (task_id) REFERENCES public.task(id);
ALTER TABLE ONLY public.bag
    ADD CONSTRAINT bag_deliverable_id_fkey FOREIGN KEY (deliverable_id) REFERENCES public.deliverable(id);
ALTER TABLE ONLY public.bag
    ADD CONSTRAINT bag_production_id_fkey FOREIGN KEY (production_id) REFERENCES public.production(id);
ALTER TABLE ONLY public.bag
    ADD CONSTRAINT bag_volume_id_fkey FOREIGN KEY (volume_id) REFERENCES public.volume(id);
ALTER TABLE ONLY public.clip
    ADD CONSTRAINT clip_entry_id_fkey FOREIGN KEY (entry_id) REFERENCES public.load_entry(id);
ALTER TABLE ONLY public.clip_file
    ADD CONSTRAINT clip_file_clip_id_fkey FOREIGN KEY (clip_id) REFERENCES public.clip(id);
ALTER TABLE ONLY public.clip_file
    ADD CONSTRAINT clip_file_entry_id_fkey FOREIGN KEY (entry_id) REFERENCES public.load_entry(id);
ALTER TABLE ONLY public.clip
    ADD CONSTRAINT clip_lens_of_fkey FOREIGN KEY (lens_of) REFERENCES public.clip(id);
ALTER TABLE ONLY public.clip
    ADD CONSTRAINT clip_load_id_fkey FOREIGN KEY (load_id) REFERENCES public.load(id);
ALTER TABLE ONLY public.clip
    ADD CONSTRAINT clip_member_of_fkey FOREIGN KEY (member_of) REFERENCES public.clip(id);
ALTER TABLE ONLY public.clip
    ADD CONSTRAINT clip_production_id_fkey FOREIGN KEY (production_id) REFERENCES public.production(id);
ALTER TABLE ONLY public.clip
    ADD CONSTRAINT clip_same_as_fkey FOREIGN KEY (same_as) REFERENCES public.clip(id);
ALTER TABLE ONLY public.clip
    ADD CONSTRAINT clip_take_id_fkey FOREIGN KEY (take_id) REFERENCES public.clip(id);
ALTER TABLE ONLY public.copy_file
    ADD CONSTRAINT copy_file_entry_id_fkey FOREIGN KEY (entry_id) REFERENCES public.load_entry(id);
ALTER TABLE ONLY public.copy_file
    ADD CONSTRAINT copy_file_load_id_fkey FOREIGN KEY (load_id) REFERENCES public.load(id);
ALTER TABLE ONLY public.copy_file
    ADD CONSTRAINT copy_file_proof_id_fkey FOREIGN KEY (proof_id) REFERENCES public.proof(id);
ALTER TABLE ONLY public.copy_file
    ADD CONSTRAINT copy_file_volume_id_fkey FOREIGN KEY (volume_id) REFERENCES public.volume(id);
ALTER TABLE ONLY public.copy_queue
    ADD CONSTRAINT copy_queue_load_id_fkey FOREIGN KEY (load_id) REFERENCES public.load(id);
ALTER TABLE ONLY public.day_sheet
    ADD CONSTRAINT day_sheet_production_id_fkey FOREIGN KEY (production_id) REFERENCES public.production(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.deliverable
    ADD CONSTRAINT deliverable_clip_id_fkey FOREIGN KEY (clip_id) REFERENCES public.clip(id);
ALTER TABLE ONLY public.deliverable
    ADD CONSTRAINT deliverable_production_id_fkey FOREIGN KEY (production_id) REFERENCES public.production(id);
ALTER TABLE ONLY public.deliverable
    ADD CONSTRAINT deliverable_volume_id_fkey FOREIGN KEY (volume_id) REFERENCES public.volume(id);
ALTER TABLE ONLY public.ledger
    ADD CONSTRAINT ledger_production_id_fkey FOREIGN KEY (production_id) REFERENCES public.production(id);
ALTER TABLE ONLY public.ledger
    ADD CONSTRAINT ledger_volume_id_fkey FOREIGN KEY (volume_id) REFERENCES public.volume(id);
ALTER TABLE ONLY public.load
    ADD CONSTRAINT load_camera_id_fkey FOREIGN KEY (camera_id) REFERENCES public.camera(id);
ALTER TABLE ONLY public.load
    ADD CONSTRAINT load_card_id_fkey FOREIGN KEY (card_id) REFERENCES public.card(id);
ALTER TABLE ONLY public.load_entry
    ADD CONSTRAINT load_entry_load_id_fkey FOREIGN KEY (load_id) REFERENCES public.load(id);
ALTER TABLE ONLY public.load_finding
    ADD CONSTRAINT load_finding_load_id_fkey FOREIGN KEY (load_id) REFERENCES public.load(id);
ALTER TABLE ONLY public.load
    ADD CONSTRAINT load_production_id_fkey FOREIGN KEY (production_id) REFERENCES public.production(id);
ALTER TABLE ONLY public.load
    ADD CONSTRAINT load_reader_id_fkey FOREIGN KEY (reader_id) REFERENCES public.reader(id);
ALTER TABLE ONLY public.load
    ADD CONSTRAINT load_rig_id_fkey FOREIGN KEY (rig_id) REFERENCES public.rig(id);
ALTER TABLE ONLY public.load_sample
    ADD CONSTRAINT load_sample_entry_id_fkey FOREIGN KEY (entry_id) REFERENCES public.load_entry(id);
ALTER TABLE ONLY public.load_sample
    ADD CONSTRAINT load_sample_load_id_fkey FOREIGN KEY (load_id) REFERENCES public.load(id);
ALTER TABLE ONLY public.load_summary
    ADD CONSTRAINT load_summary_load_id_fkey FOREIGN KEY (load_id) REFERENCES public.load(id);
ALTER TABLE ONLY public.load_summary
    ADD CONSTRAINT load_summary_production_id_fkey FOREIGN KEY (production_id) REFERENCES public.production(id);
ALTER TABLE ONLY public.mirror
    ADD CONSTRAINT mirror_load_id_fkey FOREIGN KEY (load_id) REFERENCES public.load(id);
ALTER TABLE ONLY public.mirror
    ADD CONSTRAINT mirror_seen_id_fkey FOREIGN KEY (seen_id) REFERENCES public.seen(id);
ALTER TABLE ONLY public.mirror
    ADD CONSTRAINT mirror_volume_id_fkey FOREIGN KEY (volume_id) REFERENCES public.volume(id);
ALTER TABLE ONLY public.mount
    ADD CONSTRAINT mount_volume_id_fkey FOREIGN KEY (volume_id) REFERENCES public.volume(id);
ALTER TABLE ONLY public.offload
    ADD CONSTRAINT offload_camera_id_fkey FOREIGN KEY (camera_id) REFERENCES public.camera(id);
ALTER TABLE ONLY public.offload
    ADD CONSTRAINT offload_load_id_fkey FOREIGN KEY (load_id) REFERENCES public.load(id);
ALTER TABLE ONLY public.offload
    ADD CONSTRAINT offload_production_id_fkey FOREIGN KEY (production_id) REFERENCES public.production(id);
ALTER TABLE ONLY public.plan
    ADD CONSTRAINT plan_production_id_fkey FOREIGN KEY (production_id) REFERENCES public.production(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.planned_camera
    ADD CONSTRAINT planned_camera_camera_id_fkey FOREIGN KEY (camera_id) REFERENCES public.camera(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.planned_camera
    ADD CONSTRAINT planned_camera_production_id_fkey FOREIGN KEY (production_id) REFERENCES public.plan(production_id) ON DELETE CASCADE;
ALTER TABLE ONLY public.planned_card
    ADD CONSTRAINT planned_card_camera_id_fkey FOREIGN KEY (camera_id) REFERENCES public.camera(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.planned_card
    ADD CONSTRAINT planned_card_card_id_fkey FOREIGN KEY (card_id) REFERENCES public.card(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.planned_card
    ADD CONSTRAINT planned_card_production_id_fkey FOREIGN KEY (production_id) REFERENCES public.plan(production_id) ON DELETE CASCADE;
ALTER TABLE ONLY public.planned_takes
    ADD CONSTRAINT planned_takes_camera_id_fkey FOREIGN KEY (camera_id) REFERENCES public.camera(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.planned_takes
    ADD CONSTRAINT planned_takes_mode_id_fkey FOREIGN KEY (mode_id) REFERENCES public.recording_mode(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.planned_takes
    ADD CONSTRAINT planned_takes_production_id_fkey FOREIGN KEY (production_id) REFERENCES public.plan(production_id) ON DELETE CASCADE;
ALTER TABLE ONLY public.production_bytes
    ADD CONSTRAINT production_bytes_production_id_fkey FOREIGN KEY (production_id) REFERENCES public.production(id);
ALTER TABLE ONLY public.production_bytes
    ADD CONSTRAINT production_bytes_volume_id_fkey FOREIGN KEY (volume_id) REFERENCES public.volume(id);
ALTER TABLE ONLY public.production
    ADD CONSTRAINT production_client_id_fkey FOREIGN KEY (client_id) REFERENCES public.client(id);
ALTER TABLE ONLY public.proof
    ADD CONSTRAINT proof_bag_id_fkey FOREIGN KEY (bag_id) REFERENCES public.bag(id);
ALTER TABLE ONLY public.proof
    ADD CONSTRAINT proof_clip_id_fkey FOREIGN KEY (clip_id) REFERENCES public.clip(id);
ALTER TABLE ONLY public.proof
    ADD CONSTRAINT proof_deliverable_id_fkey FOREIGN KEY (deliverable_id) REFERENCES public.deliverable(id);
ALTER TABLE ONLY public.proof
    ADD CONSTRAINT proof_entry_id_fkey FOREIGN KEY (entry_id) REFERENCES public.load_entry(id);
ALTER TABLE ONLY public.proof
    ADD CONSTRAINT proof_load_id_fkey FOREIGN KEY (load_id) REFERENCES public.load(id);
ALTER TABLE ONLY public.proof
    ADD CONSTRAINT proof_volume_id_fkey FOREIGN KEY (volume_id) REFERENCES public.volume(id);
ALTER TABLE ONLY public.proxy
    ADD CONSTRAINT proxy_clip_id_fkey FOREIGN KEY (clip_id) REFERENCES public.clip(id);
ALTER TABLE ONLY public.proxy_sample
    ADD CONSTRAINT proxy_sample_clip_id_fkey FOREIGN KEY (clip_id) REFERENCES public.clip(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.proxy
    ADD CONSTRAINT proxy_volume_id_fkey FOREIGN KEY (volume_id) REFERENCES public.volume(id);
ALTER TABLE ONLY public.reader
    ADD CONSTRAINT reader_load_id_fkey FOREIGN KEY (load_id) REFERENCES public.load(id);
ALTER TABLE ONLY public.reader
    ADD CONSTRAINT reader_twin_id_fkey FOREIGN KEY (twin_id) REFERENCES public.twin(id);
ALTER TABLE ONLY public.reading
    ADD CONSTRAINT reading_load_id_fkey FOREIGN KEY (load_id) REFERENCES public.load(id);
ALTER TABLE ONLY public.reading
    ADD CONSTRAINT reading_volume_id_fkey FOREIGN KEY (volume_id) REFERENCES public.volume(id);
ALTER TABLE ONLY public.recorded
    ADD CONSTRAINT recorded_camera_id_fkey FOREIGN KEY (camera_id) REFERENCES public.camera(id);
ALTER TABLE ONLY public.recorded
    ADD CONSTRAINT recorded_load_id_fkey FOREIGN KEY (load_id) REFERENCES public.load(id);
ALTER TABLE ONLY public.recorded
    ADD CONSTRAINT recorded_production_id_fkey FOREIGN KEY (production_id) REFERENCES public.production(id);
ALTER TABLE ONLY public.recording_mode
    ADD CONSTRAINT recording_mode_camera_id_fkey FOREIGN KEY (camera_id) REFERENCES public.camera(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.review
    ADD CONSTRAINT review_clip_id_fkey FOREIGN KEY (clip_id) REFERENCES public.clip(id);
ALTER TABLE ONLY public.review
    ADD CONSTRAINT review_shot_id_fkey FOREIGN KEY (shot_id) REFERENCES public.shot(id) ON DELETE SET NULL;
ALTER TABLE ONLY public.rig
    ADD CONSTRAINT rig_production_id_fkey FOREIGN KEY (production_id) REFERENCES public.production(id);
ALTER TABLE ONLY public.said
    ADD CONSTRAINT said_entry_id_fkey FOREIGN KEY (entry_id) REFERENCES public.load_entry(id);
ALTER TABLE ONLY public.said
    ADD CONSTRAINT said_load_id_fkey FOREIGN KEY (load_id) REFERENCES public.load(id);
ALTER TABLE ONLY public.said
    ADD CONSTRAINT said_other_volume_id_fkey FOREIGN KEY (other_volume_id) REFERENCES public.volume(id);
ALTER TABLE ONLY public.said
    ADD CONSTRAINT said_twin_id_fkey FOREIGN KEY (twin_id) REFERENCES public.twin(id);
ALTER TABLE ONLY public.said
    ADD CONSTRAINT said_volume_id_fkey FOREIGN KEY (volume_id) REFERENCES public.volume(id);
ALTER TABLE ONLY public.seen_change
    ADD CONSTRAINT seen_change_seen_id_fkey FOREIGN KEY (seen_id) REFERENCES public.seen(id);
ALTER TABLE ONLY public.seen
    ADD CONSTRAINT seen_load_id_fkey FOREIGN KEY (load_id) REFERENCES public.load(id);
ALTER TABLE ONLY public.seen
    ADD CONSTRAINT seen_reader_id_fkey FOREIGN KEY (reader_id) REFERENCES public.reader(id);
ALTER TABLE ONLY public.seen
    ADD CONSTRAINT seen_volume_id_fkey FOREIGN KEY (volume_id) REFERENCES public.volume(id);
ALTER TABLE ONLY public.shot
    ADD CONSTRAINT shot_camera_id_fkey FOREIGN KEY (camera_id) REFERENCES public.camera(id) ON DELETE SET NULL;
ALTER TABLE ONLY public.shot
    ADD CONSTRAINT shot_production_id_fkey FOREIGN KEY (production_id) REFERENCES public.production(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.sorted_change
    ADD CONSTRAINT sorted_change_entry_id_fkey FOREIGN KEY (entry_id) REFERENCES public.load_entry(id);
ALTER TABLE ONLY public.sorted_change
    ADD CONSTRAINT sorted_change_production_id_fkey FOREIGN KEY (production_id) REFERENCES public.production(id);
ALTER TABLE ONLY public.sorted_change
    ADD CONSTRAINT sorted_change_volume_id_fkey FOREIGN KEY (volume_id) REFERENCES public.volume(id);
ALTER TABLE ONLY public.sorted_file
    ADD CONSTRAINT sorted_file_entry_id_fkey FOREIGN KEY (entry_id) REFERENCES public.load_entry(id);
ALTER TABLE ONLY public.sorted_file
    ADD CONSTRAINT sorted_file_production_id_fkey FOREIGN KEY (production_id) REFERENCES public.production(id);
ALTER TABLE ONLY public.sorted_file
    ADD CONSTRAINT sorted_file_volume_id_fkey FOREIGN KEY (volume_id) REFERENCES public.volume(id);
ALTER TABLE ONLY public.sorted_view
    ADD CONSTRAINT sorted_view_production_id_fkey FOREIGN KEY (production_id) REFERENCES public.production(id);
ALTER TABLE ONLY public.sorted_view
    ADD CONSTRAINT sorted_view_volume_id_fkey FOREIGN KEY (volume_id) REFERENCES public.volume(id);
ALTER TABLE ONLY public.task
    ADD CONSTRAINT task_load_id_fkey FOREIGN KEY (load_id) REFERENCES public.load(id) ON DELETE SET NULL;
ALTER TABLE ONLY public.task_order
    ADD CONSTRAINT task_order_task_id_fkey FOREIGN KEY (task_id) REFERENCES public.task(id);
ALTER TABLE ONLY public.task
    ADD CONSTRAINT task_production_id_fkey FOREIGN KEY (production_id) REFERENCES public.production(id) ON DELETE SET NULL;
ALTER TABLE ONLY public.tool_child
    ADD CONSTRAINT tool_child_attempt_id_fkey FOREIGN KEY (attempt_id) REFERENCES public.attempt(id);
ALTER TABLE ONLY public.twin
    ADD CONSTRAINT twin_load_id_fkey FOREIGN KEY (load_id) REFERENCES public.load(id);
ALTER TABLE ONLY public.twin_reading
    ADD CONSTRAINT twin_reading_twin_id_fkey FOREIGN KEY (twin_id) REFERENCES public.twin(id);
ALTER TABLE ONLY public.volume
    ADD CONSTRAINT volume_site_id_fkey FOREIGN KEY (site_id) REFERENCES public.site(id);
\unrestrict Nmcgk5DLdvweqPa9hQ2OiQGPcBIb3xcW7S4bqU280TRSCi1FkQUIKpsIOXuVmZ1
