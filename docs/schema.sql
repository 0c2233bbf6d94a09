CREATE FUNCTION public.add_production_bytes(production uuid, volume uuid, class text, bytes bigint) RETURNS void
    LANGUAGE sql
    AS $$
  insert into production_bytes (production_id, volume_id, byte_class, size_bytes)
  select production, volume, class, bytes where bytes <> 0
  on conflict (production_id, volume_id, byte_class) do update set size_bytes = production_bytes.size_bytes + excluded.size_bytes $$;

CREATE FUNCTION public.begin_takes() RETURNS trigger
    LANGUAGE plpgsql
    AS $$
  begin
    insert into take (id) select id from new_files;
    insert into take_file (entry_id, take_id, media_file_id, main, role)
    select entry_id, id, id, true, case when has_picture then 'picture' else 'sound' end from new_files;
    return null;
  end $$;

CREATE FUNCTION public.chart_all() RETURNS trigger
    LANGUAGE plpgsql
    AS $$
  begin
    insert into chart_due (load_id) select id from load;
    return null;
  end $$;

CREATE FUNCTION public.chart_files() RETURNS trigger
    LANGUAGE plpgsql
    AS $$
  begin
    insert into chart_due (load_id) select distinct load_id from new_files;
    return null;
  end $$;

CREATE FUNCTION public.chart_load() RETURNS trigger
    LANGUAGE plpgsql
    AS $$
  begin
    insert into chart_due (load_id) values (case when tg_table_name = 'load' then (to_jsonb(new)->>'id')::uuid else (to_jsonb(coalesce(new, old))->>'load_id')::uuid end);
    return null;
  end $$;

CREATE FUNCTION public.chart_production() RETURNS trigger
    LANGUAGE plpgsql
    AS $$
  begin
    insert into chart_due (load_id)
      select id from load where production_id = new.id union select load_id from load_summary where production_id = new.id;
    return null;
  end $$;

CREATE FUNCTION public.chart_said() RETURNS trigger
    LANGUAGE plpgsql
    AS $$
  begin
    if new.load_id is not null then
      insert into chart_due (load_id) values (new.load_id);
    else
      insert into chart_due (load_id) select distinct load_id from mirror where volume_id in (new.volume_id, new.other_volume_id);
    end if;
    return null;
  end $$;

CREATE FUNCTION public.chart_volume() RETURNS trigger
    LANGUAGE plpgsql
    AS $$
  begin
    insert into chart_due (load_id) select load_id from mirror where volume_id = (to_jsonb(new)->>case when tg_table_name = 'volume' then 'id' else 'volume_id' end)::uuid;
    return null;
  end $$;

CREATE FUNCTION public.count_copy_files() RETURNS trigger
    LANGUAGE plpgsql
    AS $$
  begin
    -- Only an update has rows that were there before; a statement whose text is fixed is planned once.
    if tg_op = 'INSERT' then
      update mirror set
        files_verified = mirror.files_verified + delta.verified,
        files_memory = mirror.files_memory + delta.memory,
        files_missing = mirror.files_missing + delta.missing,
        files_changed = mirror.files_changed + delta.changed,
        files_doubted = mirror.files_doubted + delta.doubted,
        files_differ = mirror.files_differ + delta.differs,
        files_conflict = mirror.files_conflict + delta.conflict,
        size_bytes = mirror.size_bytes + delta.bytes,
        copied_bytes = mirror.copied_bytes + delta.all_bytes,
        print = mirror.print + delta.print
      from (
        select load_id, volume_id,
          coalesce(sum(sign) filter (where on_card and standing = 'verified'), 0) as verified,
          coalesce(sum(sign) filter (where on_card and standing = 'memory'), 0) as memory,
          coalesce(sum(sign) filter (where on_card and standing = 'missing'), 0) as missing,
          coalesce(sum(sign) filter (where on_card and standing = 'changed'), 0) as changed,
          coalesce(sum(sign) filter (where on_card and standing = 'doubted'), 0) as doubted,
          coalesce(sum(sign) filter (where on_card and standing = 'differs'), 0) as differs,
          coalesce(sum(sign) filter (where on_card and standing = 'conflict'), 0) as conflict,
          coalesce(sum(sign * entry_bytes) filter (where on_card and standing in ('verified', 'memory')), 0) as bytes,
          coalesce(sum(sign * entry_bytes) filter (where standing in ('verified', 'memory')), 0) as all_bytes,
          coalesce(sum(sign * hashtextextended(standing, entry_id)) filter (where on_card), 0) as print
        from (select load_id, volume_id, entry_id, standing, on_card, entry_bytes, 1 as sign from new_files) as files
        group by load_id, volume_id) as delta
      where mirror.load_id = delta.load_id and mirror.volume_id = delta.volume_id
        and (delta.verified, delta.memory, delta.missing, delta.changed, delta.doubted, delta.differs, delta.conflict, delta.bytes, delta.all_bytes, delta.print)
          is distinct from (0::bigint, 0::bigint, 0::bigint, 0::bigint, 0::bigint, 0::bigint, 0::bigint, 0::numeric, 0::numeric, 0::numeric);
    else
      update mirror set
        files_verified = mirror.files_verified + delta.verified,
        files_memory = mirror.files_memory + delta.memory,
        files_missing = mirror.files_missing + delta.missing,
        files_changed = mirror.files_changed + delta.changed,
        files_doubted = mirror.files_doubted + delta.doubted,
        files_differ = mirror.files_differ + delta.differs,
        files_conflict = mirror.files_conflict + delta.conflict,
        size_bytes = mirror.size_bytes + delta.bytes,
        copied_bytes = mirror.copied_bytes + delta.all_bytes,
        print = mirror.print + delta.print
      from (
        select load_id, volume_id,
          coalesce(sum(sign) filter (where on_card and standing = 'verified'), 0) as verified,
          coalesce(sum(sign) filter (where on_card and standing = 'memory'), 0) as memory,
          coalesce(sum(sign) filter (where on_card and standing = 'missing'), 0) as missing,
          coalesce(sum(sign) filter (where on_card and standing = 'changed'), 0) as changed,
          coalesce(sum(sign) filter (where on_card and standing = 'doubted'), 0) as doubted,
          coalesce(sum(sign) filter (where on_card and standing = 'differs'), 0) as differs,
          coalesce(sum(sign) filter (where on_card and standing = 'conflict'), 0) as conflict,
          coalesce(sum(sign * entry_bytes) filter (where on_card and standing in ('verified', 'memory')), 0) as bytes,
          coalesce(sum(sign * entry_bytes) filter (where standing in ('verified', 'memory')), 0) as all_bytes,
          coalesce(sum(sign * hashtextextended(standing, entry_id)) filter (where on_card), 0) as print
        from (select load_id, volume_id, entry_id, standing, on_card, entry_bytes, 1 as sign from new_files union all select load_id, volume_id, entry_id, standing, on_card, entry_bytes, -1 from old_files) as files
        group by load_id, volume_id) as delta
      where mirror.load_id = delta.load_id and mirror.volume_id = delta.volume_id
        and (delta.verified, delta.memory, delta.missing, delta.changed, delta.doubted, delta.differs, delta.conflict, delta.bytes, delta.all_bytes, delta.print)
          is distinct from (0::bigint, 0::bigint, 0::bigint, 0::bigint, 0::bigint, 0::bigint, 0::bigint, 0::numeric, 0::numeric, 0::numeric);
    end if;
    return null;
  end $$;

CREATE FUNCTION public.count_ledger_bytes() RETURNS trigger
    LANGUAGE plpgsql
    AS $$
  begin
    perform add_production_bytes(new.production_id, new.volume_id, new.byte_class, new.size_bytes);
    return null;
  end $$;

CREATE FUNCTION public.count_media_files() RETURNS trigger
    LANGUAGE plpgsql
    AS $$
  begin
    -- Only an update has rows that were there before; a statement whose text is fixed is planned once.
    if tg_op = 'INSERT' then
      insert into load_summary as s
        (load_id, production_id, clips, media, length_ms, playable, videos, proxies_equal, proxies_differ, proxies_unchecked, proxies_without, proxy_bytes_open)
      select load_id, production_id,
        coalesce(sum(sign) filter (where shown and not goes_on), 0),
        coalesce(sum(sign) filter (where shown), 0),
        coalesce(sum(sign * length_ms) filter (where shown), 0),
        coalesce(sum(sign) filter (where shown and playable), 0),
        coalesce(sum(sign) filter (where shown and has_video and proxy_wanted), 0),
        coalesce(sum(sign) filter (where shown and has_video and proxy_wanted and proxy = 'equal'), 0),
        coalesce(sum(sign) filter (where shown and has_video and proxy_wanted and proxy = 'differs'), 0),
        coalesce(sum(sign) filter (where shown and has_video and proxy_wanted and proxy = 'unchecked'), 0),
        coalesce(sum(sign) filter (where shown and has_video and not proxy_wanted), 0),
        coalesce(sum(sign * proxy_bytes) filter (where shown and has_video and proxy_wanted and proxy not in ('equal', 'unchecked')), 0)
      from (select *, 1 as sign from new_files) as files
      group by load_id, production_id order by load_id, production_id
      on conflict (load_id, production_id) do update set
        clips = s.clips + excluded.clips, media = s.media + excluded.media, length_ms = s.length_ms + excluded.length_ms,
        playable = s.playable + excluded.playable, videos = s.videos + excluded.videos,
        proxies_equal = s.proxies_equal + excluded.proxies_equal, proxies_differ = s.proxies_differ + excluded.proxies_differ,
        proxies_unchecked = s.proxies_unchecked + excluded.proxies_unchecked,
        proxies_without = s.proxies_without + excluded.proxies_without,
        proxy_bytes_open = s.proxy_bytes_open + excluded.proxy_bytes_open;
    else
      insert into load_summary as s
        (load_id, production_id, clips, media, length_ms, playable, videos, proxies_equal, proxies_differ, proxies_unchecked, proxies_without, proxy_bytes_open)
      select load_id, production_id,
        coalesce(sum(sign) filter (where shown and not goes_on), 0),
        coalesce(sum(sign) filter (where shown), 0),
        coalesce(sum(sign * length_ms) filter (where shown), 0),
        coalesce(sum(sign) filter (where shown and playable), 0),
        coalesce(sum(sign) filter (where shown and has_video and proxy_wanted), 0),
        coalesce(sum(sign) filter (where shown and has_video and proxy_wanted and proxy = 'equal'), 0),
        coalesce(sum(sign) filter (where shown and has_video and proxy_wanted and proxy = 'differs'), 0),
        coalesce(sum(sign) filter (where shown and has_video and proxy_wanted and proxy = 'unchecked'), 0),
        coalesce(sum(sign) filter (where shown and has_video and not proxy_wanted), 0),
        coalesce(sum(sign * proxy_bytes) filter (where shown and has_video and proxy_wanted and proxy not in ('equal', 'unchecked')), 0)
      from (select *, 1 as sign from new_files union all select *, -1 as sign from old_files) as files
      group by load_id, production_id order by load_id, production_id
      on conflict (load_id, production_id) do update set
        clips = s.clips + excluded.clips, media = s.media + excluded.media, length_ms = s.length_ms + excluded.length_ms,
        playable = s.playable + excluded.playable, videos = s.videos + excluded.videos,
        proxies_equal = s.proxies_equal + excluded.proxies_equal, proxies_differ = s.proxies_differ + excluded.proxies_differ,
        proxies_unchecked = s.proxies_unchecked + excluded.proxies_unchecked,
        proxies_without = s.proxies_without + excluded.proxies_without,
        proxy_bytes_open = s.proxy_bytes_open + excluded.proxy_bytes_open;
    end if;
    return null;
  end $$;

CREATE FUNCTION public.count_mirror_bytes() RETURNS trigger
    LANGUAGE plpgsql
    AS $$
  begin
    perform add_production_bytes(
      (select production_id from load where id = new.load_id), new.volume_id, 'originals', new.copied_bytes - old.copied_bytes);
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
      perform add_production_bytes(
        (select production_id from media_file where id = old.media_file_id), old.volume_id, 'generated', -old.size_bytes);
    end if;
    perform add_production_bytes(
      (select production_id from media_file where id = new.media_file_id), new.volume_id, 'generated', new.size_bytes);
    return null;
  end $$;

CREATE FUNCTION public.follow_entry() RETURNS trigger
    LANGUAGE plpgsql
    AS $$
  begin
    update media_file file set on_card = new.state = 'on-card',
      shown = place.main and (new.state = 'on-card' or (new.state = 'gone' and new.copied))
    from take_file place where file.entry_id = new.id and place.entry_id = new.id;
    return null;
  end $$;

CREATE FUNCTION public.follow_without_proxy() RETURNS trigger
    LANGUAGE plpgsql
    AS $$
  begin
    update media_file set proxy_wanted = tg_op = 'DELETE' where id = coalesce(new.media_file_id, old.media_file_id);
    return null;
  end $$;

CREATE FUNCTION public.media_file_recorded() RETURNS trigger
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

CREATE FUNCTION public.move_proxy_bytes() RETURNS trigger
    LANGUAGE plpgsql
    AS $$
  begin
    perform add_production_bytes(old.production_id, volume_id, 'generated', -size_bytes) from proxy where media_file_id = new.id;
    perform add_production_bytes(new.production_id, volume_id, 'generated', size_bytes) from proxy where media_file_id = new.id;
    return null;
  end $$;

CREATE FUNCTION public.new_load_summary() RETURNS trigger
    LANGUAGE plpgsql
    AS $$
  begin
    insert into load_summary (load_id, production_id) values (new.id, new.production_id);
    return null;
  end $$;

CREATE FUNCTION public.search_words(name text) RETURNS tsvector
    LANGUAGE sql IMMUTABLE PARALLEL SAFE
    AS $_$
  select to_tsvector('simple', regexp_replace(regexp_replace(name, '\.[^.]*$', ''), '[^[:alnum:]]+', ' ', 'g')) $_$;

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
    how text,
    alive_at timestamp with time zone DEFAULT clock_timestamp() NOT NULL
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

CREATE TABLE public.books_mark (
    token uuid DEFAULT gen_random_uuid() NOT NULL,
    number bigint NOT NULL,
    at timestamp with time zone DEFAULT clock_timestamp() NOT NULL
);

ALTER TABLE public.books_mark ALTER COLUMN number ADD GENERATED ALWAYS AS IDENTITY (
    SEQUENCE NAME public.books_mark_number_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
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

CREATE TABLE public.card_stamp (
    load_id uuid NOT NULL,
    path bytea NOT NULL,
    listed text NOT NULL,
    stamp text NOT NULL
);

CREATE TABLE public.chart_copy (
    load_id uuid NOT NULL,
    volume_id uuid NOT NULL,
    oldest_at timestamp with time zone NOT NULL,
    others smallint NOT NULL
);

CREATE TABLE public.chart_due (
    id bigint NOT NULL,
    load_id uuid NOT NULL,
    due_at timestamp with time zone DEFAULT clock_timestamp() NOT NULL
);

ALTER TABLE public.chart_due ALTER COLUMN id ADD GENERATED ALWAYS AS IDENTITY (
    SEQUENCE NAME public.chart_due_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);

CREATE TABLE public.chart_line (
    load_id uuid NOT NULL,
    production_id uuid NOT NULL,
    client_id uuid,
    year integer NOT NULL,
    place text NOT NULL COLLATE pg_catalog."C",
    danger smallint NOT NULL,
    oldest_proof_at timestamp with time zone
);

CREATE TABLE public.chart_place (
    of_id uuid NOT NULL,
    place text NOT NULL COLLATE pg_catalog."C",
    load_id uuid NOT NULL
);

CREATE TABLE public.clear_rule (
    id uuid DEFAULT gen_random_uuid() NOT NULL,
    name text NOT NULL,
    copies integer NOT NULL,
    devices integer NOT NULL,
    media integer NOT NULL,
    sites integer NOT NULL,
    played integer NOT NULL,
    card_out boolean NOT NULL,
    at_desk boolean NOT NULL,
    proof_hours integer NOT NULL,
    accept_memory boolean NOT NULL,
    shipped boolean DEFAULT false NOT NULL,
    put_away_at timestamp with time zone,
    created_at timestamp with time zone DEFAULT clock_timestamp() NOT NULL,
    CONSTRAINT clear_rule_check CHECK (((devices >= 2) AND (devices <= copies))),
    CONSTRAINT clear_rule_copies_check CHECK ((copies >= 2)),
    CONSTRAINT clear_rule_media_check CHECK ((media >= 1)),
    CONSTRAINT clear_rule_played_check CHECK ((played >= 1)),
    CONSTRAINT clear_rule_proof_hours_check CHECK ((proof_hours >= 1)),
    CONSTRAINT clear_rule_sites_check CHECK ((sites >= 1))
);

CREATE TABLE public.client (
    id uuid DEFAULT gen_random_uuid() NOT NULL,
    name text NOT NULL,
    put_away_at timestamp with time zone,
    created_at timestamp with time zone DEFAULT clock_timestamp() NOT NULL,
    rule_id uuid,
    raw text DEFAULT 'all'::text NOT NULL,
    CONSTRAINT client_raw_check CHECK ((raw = ANY (ARRAY['all'::text, 'film-and-tracks'::text])))
);

CREATE TABLE public.comparison (
    id bigint NOT NULL,
    at timestamp with time zone DEFAULT clock_timestamp() NOT NULL,
    stay_id uuid NOT NULL,
    load_id uuid NOT NULL,
    print text NOT NULL,
    how text NOT NULL,
    clips integer NOT NULL,
    compared integer NOT NULL,
    with_copies integer NOT NULL,
    unreadable integer NOT NULL,
    differing integer NOT NULL,
    volume_names jsonb NOT NULL,
    paths jsonb NOT NULL,
    seed text NOT NULL,
    CONSTRAINT comparison_how_check CHECK ((how = ANY (ARRAY['places'::text, 'whole'::text])))
);

ALTER TABLE public.comparison ALTER COLUMN id ADD GENERATED ALWAYS AS IDENTITY (
    SEQUENCE NAME public.comparison_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
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
    inode text,
    changed_ms double precision,
    modified_ms double precision,
    CONSTRAINT copy_file_listed_check CHECK ((listed = ANY (ARRAY['as-proved'::text, 'absent'::text, 'changed'::text, 'doubted'::text]))),
    CONSTRAINT copy_file_standing_check CHECK ((standing = ANY (ARRAY['verified'::text, 'memory'::text, 'missing'::text, 'changed'::text, 'doubted'::text, 'differs'::text, 'conflict'::text])))
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
    media_file_id uuid NOT NULL,
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

CREATE TABLE public.edit (
    id uuid DEFAULT gen_random_uuid() NOT NULL,
    at timestamp with time zone DEFAULT clock_timestamp() NOT NULL,
    title text NOT NULL,
    turn integer DEFAULT 0 NOT NULL,
    undone boolean DEFAULT false NOT NULL,
    rows jsonb NOT NULL
);

CREATE TABLE public.journal (
    id bigint NOT NULL,
    at timestamp with time zone DEFAULT clock_timestamp() NOT NULL,
    kind text NOT NULL,
    production_id uuid,
    load_id uuid,
    volume_id uuid,
    media_file_id uuid,
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

CREATE TABLE public.function_text (
    print text NOT NULL,
    applied_at timestamp with time zone DEFAULT clock_timestamp() NOT NULL
);

CREATE TABLE public.kept_chart (
    id uuid DEFAULT gen_random_uuid() NOT NULL,
    at timestamp with time zone DEFAULT clock_timestamp() NOT NULL,
    file_name text NOT NULL,
    print text NOT NULL,
    lines integer NOT NULL,
    taken_back_at timestamp with time zone
);

CREATE TABLE public.kept_copy (
    line_id uuid NOT NULL,
    name text NOT NULL,
    volume_id uuid,
    said text NOT NULL
);

CREATE TABLE public.kept_line (
    id uuid DEFAULT gen_random_uuid() NOT NULL,
    import_id uuid NOT NULL,
    number integer NOT NULL,
    client text NOT NULL,
    client_id uuid,
    production text NOT NULL,
    production_id uuid,
    shoot_on date,
    label text NOT NULL,
    camera text NOT NULL,
    size_bytes bigint,
    formatted text NOT NULL,
    year integer NOT NULL,
    place text NOT NULL COLLATE pg_catalog."C",
    load_id uuid,
    shown boolean DEFAULT true NOT NULL
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

CREATE TABLE public.list_check (
    id uuid NOT NULL,
    folder text NOT NULL,
    list text NOT NULL,
    checked jsonb NOT NULL,
    ended_at timestamp with time zone DEFAULT now() NOT NULL
);

CREATE TABLE public.list_finding (
    id uuid DEFAULT gen_random_uuid() NOT NULL,
    check_id uuid NOT NULL,
    place bigint NOT NULL,
    kind text NOT NULL,
    path_text text NOT NULL,
    line integer,
    detail text NOT NULL
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
    card_difference text,
    card_doubted_at timestamp with time zone,
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
    production_id uuid NOT NULL,
    proxies_unchecked integer DEFAULT 0 NOT NULL,
    proxies_without integer DEFAULT 0 NOT NULL
);

CREATE TABLE public.media_file (
    id uuid DEFAULT gen_random_uuid() NOT NULL,
    load_id uuid NOT NULL,
    entry_id bigint NOT NULL,
    path_text text NOT NULL,
    name text NOT NULL,
    size_bytes bigint NOT NULL,
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
    sort_path text GENERATED ALWAYS AS ("left"(path_text, 240)) STORED NOT NULL,
    seconds double precision GENERATED ALWAYS AS (COALESCE(((probe ->> 'seconds'::text))::double precision, (0)::double precision)) STORED NOT NULL,
    length_ms bigint GENERATED ALWAYS AS ((round((COALESCE(((probe ->> 'seconds'::text))::numeric, (0)::numeric) * (1000)::numeric)))::bigint) STORED NOT NULL,
    recorded_at text NOT NULL,
    frame_px bigint GENERATED ALWAYS AS (COALESCE((((probe #>> '{video,widthPx}'::text[]))::bigint * ((probe #>> '{video,heightPx}'::text[]))::bigint), (0)::bigint)) STORED NOT NULL,
    rate double precision GENERATED ALWAYS AS (COALESCE((((probe #>> '{video,rate,num}'::text[]))::double precision / NULLIF(((probe #>> '{video,rate,den}'::text[]))::double precision, (0)::double precision)), (0)::double precision)) STORED NOT NULL,
    codec text GENERATED ALWAYS AS (COALESCE((probe #>> '{video,codec}'::text[]), (probe #>> '{audio,codec}'::text[]), ''::text)) STORED NOT NULL,
    wrong boolean GENERATED ALWAYS AS (((trouble IS NOT NULL) OR (cut IS NOT NULL) OR (has_picture AND (NOT picture_made)))) STORED NOT NULL,
    has_video boolean GENERATED ALWAYS AS ((((probe -> 'video'::text) IS NOT NULL) AND (trouble IS NULL) AND ((probe -> 'sequence'::text) IS NULL))) STORED NOT NULL,
    playable boolean GENERATED ALWAYS AS (((probe IS NOT NULL) AND (trouble IS NULL) AND ((probe -> 'sequence'::text) IS NULL))) STORED NOT NULL,
    filmed_order text NOT NULL,
    shift_ms bigint DEFAULT 0 NOT NULL,
    same_as uuid,
    goes_on boolean DEFAULT false NOT NULL,
    tool_lines jsonb DEFAULT '[]'::jsonb NOT NULL,
    proxy_wanted boolean DEFAULT true NOT NULL,
    CONSTRAINT media_file_proxy_check CHECK ((proxy = ANY (ARRAY['none'::text, 'unchecked'::text, 'equal'::text, 'differs'::text])))
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
    copied_bytes bigint DEFAULT 0 NOT NULL,
    files_doubted integer DEFAULT 0 NOT NULL,
    mounted jsonb DEFAULT '[]'::jsonb NOT NULL,
    print numeric DEFAULT 0 NOT NULL
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
    links text,
    books_number bigint,
    books_at timestamp with time zone
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
    client_id uuid,
    rule_id uuid
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
    media_file_id uuid,
    deliverable_id uuid,
    bag_id uuid,
    inode text,
    changed_ms double precision,
    ends text,
    source_volume_id uuid,
    difference text,
    CONSTRAINT proof_difference_check CHECK ((difference = ANY (ARRAY['rot'::text, 'rewritten'::text, 'edited'::text, 'replaced'::text, 'unclear'::text, 'unsteady'::text, 'unreadable'::text, 'missing'::text]))),
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
    media_file_id uuid NOT NULL,
    volume_id uuid NOT NULL,
    path text NOT NULL,
    size_bytes bigint NOT NULL,
    probe jsonb NOT NULL,
    made_at timestamp with time zone DEFAULT clock_timestamp() NOT NULL,
    decoded_frames integer,
    decode_errors integer,
    times_compared integer,
    worst_seconds double precision,
    sounds jsonb
);

CREATE TABLE public.proxy_sample (
    media_file_id uuid NOT NULL,
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
    twin_id uuid,
    stay_id uuid,
    filmed_from timestamp with time zone,
    filmed_to timestamp with time zone
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
    retried integer DEFAULT 0 NOT NULL,
    bytes_per_second double precision,
    CONSTRAINT reading_how_check CHECK ((how = ANY (ARRAY['whole'::text, 'sample'::text, 'cycle'::text])))
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
    media_file_id uuid NOT NULL,
    verdict text,
    note text DEFAULT ''::text NOT NULL,
    name text,
    shot_id uuid,
    changed_at timestamp with time zone DEFAULT clock_timestamp() NOT NULL,
    folder text,
    times jsonb DEFAULT '[]'::jsonb NOT NULL,
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
    CONSTRAINT said_kind_check CHECK ((kind = ANY (ARRAY['answered'::text, 'spot-played'::text, 'formatted'::text, 'unformatted'::text, 'different-drives'::text, 'found-wrong'::text, 'found-whole'::text, 'kept-chart'::text, 'kept-chart-taken-back'::text])))
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
    kind text,
    created_at timestamp with time zone DEFAULT clock_timestamp() NOT NULL,
    put_away_at timestamp with time zone,
    CONSTRAINT site_kind CHECK ((kind = ANY (ARRAY['stays'::text, 'carried'::text, 'online'::text])))
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

CREATE TABLE public.stay (
    id uuid DEFAULT gen_random_uuid() NOT NULL,
    reader_id uuid NOT NULL,
    host text NOT NULL,
    came_at timestamp with time zone DEFAULT clock_timestamp() NOT NULL,
    seen_at timestamp with time zone DEFAULT clock_timestamp() NOT NULL,
    left_at timestamp with time zone,
    left_how text,
    mark jsonb NOT NULL,
    swaps_seen boolean NOT NULL,
    load_id uuid,
    twin_id uuid,
    known_how text,
    tried text[] DEFAULT '{}'::text[] NOT NULL,
    CONSTRAINT stay_known_how_check CHECK ((known_how = ANY (ARRAY['first-look'::text, 'compared'::text, 'ends'::text])))
);

CREATE TABLE public.take (
    id uuid NOT NULL,
    parts integer DEFAULT 1 NOT NULL,
    rig_take_id uuid
);

CREATE TABLE public.take_file (
    entry_id bigint NOT NULL,
    take_id uuid NOT NULL,
    media_file_id uuid,
    main boolean NOT NULL,
    role text NOT NULL,
    part integer DEFAULT 1 NOT NULL,
    number integer,
    CONSTRAINT take_file_check CHECK (((NOT main) OR (media_file_id IS NOT NULL))),
    CONSTRAINT take_file_role_check CHECK ((role = ANY (ARRAY['picture'::text, 'sound'::text, 'frames'::text, 'sidecar'::text, 'camera-proxy'::text, 'thumbnail'::text])))
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
    run_id uuid NOT NULL,
    stay_id uuid
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
    put_away_at timestamp with time zone,
    medium text,
    cycle_days integer DEFAULT 180 NOT NULL,
    CONSTRAINT volume_cycle_days_check CHECK (((cycle_days >= 1) AND (cycle_days <= 3650))),
    CONSTRAINT volume_medium_check CHECK ((medium = ANY (ARRAY['disk'::text, 'solid-state'::text, 'flash'::text, 'cloud'::text])))
);

CREATE TABLE public.without_proxy (
    media_file_id uuid NOT NULL
);

CREATE TABLE public.written_list (
    id uuid DEFAULT gen_random_uuid() NOT NULL,
    task_id uuid NOT NULL,
    folder text NOT NULL,
    algorithm text NOT NULL,
    lines integer NOT NULL,
    path text,
    name text NOT NULL,
    checked_in text NOT NULL,
    written_at timestamp with time zone DEFAULT now() NOT NULL
);

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

ALTER TABLE ONLY public.books_mark
    ADD CONSTRAINT books_mark_number_key UNIQUE (number);

ALTER TABLE ONLY public.books_mark
    ADD CONSTRAINT books_mark_pkey PRIMARY KEY (token);

ALTER TABLE ONLY public.camera
    ADD CONSTRAINT camera_name_key UNIQUE (name);

ALTER TABLE ONLY public.camera
    ADD CONSTRAINT camera_pkey PRIMARY KEY (id);

ALTER TABLE ONLY public.card
    ADD CONSTRAINT card_pkey PRIMARY KEY (id);

ALTER TABLE ONLY public.card_stamp
    ADD CONSTRAINT card_stamp_pkey PRIMARY KEY (load_id, path);

ALTER TABLE ONLY public.chart_copy
    ADD CONSTRAINT chart_copy_pkey PRIMARY KEY (load_id, volume_id);

ALTER TABLE ONLY public.chart_due
    ADD CONSTRAINT chart_due_pkey PRIMARY KEY (id);

ALTER TABLE ONLY public.chart_line
    ADD CONSTRAINT chart_line_pkey PRIMARY KEY (load_id);

ALTER TABLE ONLY public.chart_place
    ADD CONSTRAINT chart_place_pkey PRIMARY KEY (of_id, place, load_id);

ALTER TABLE ONLY public.clear_rule
    ADD CONSTRAINT clear_rule_pkey PRIMARY KEY (id);

ALTER TABLE ONLY public.client
    ADD CONSTRAINT client_pkey PRIMARY KEY (id);

ALTER TABLE ONLY public.comparison
    ADD CONSTRAINT comparison_pkey PRIMARY KEY (id);

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

ALTER TABLE ONLY public.edit
    ADD CONSTRAINT edit_pkey PRIMARY KEY (id);

ALTER TABLE ONLY public.journal
    ADD CONSTRAINT event_pkey PRIMARY KEY (id);

ALTER TABLE ONLY public.kept_chart
    ADD CONSTRAINT kept_chart_pkey PRIMARY KEY (id);

ALTER TABLE ONLY public.kept_copy
    ADD CONSTRAINT kept_copy_pkey PRIMARY KEY (line_id, name);

ALTER TABLE ONLY public.kept_line
    ADD CONSTRAINT kept_line_pkey PRIMARY KEY (id);

ALTER TABLE ONLY public.kysely_migration_lock
    ADD CONSTRAINT kysely_migration_lock_pkey PRIMARY KEY (id);

ALTER TABLE ONLY public.kysely_migration
    ADD CONSTRAINT kysely_migration_pkey PRIMARY KEY (name);

ALTER TABLE ONLY public.ledger
    ADD CONSTRAINT ledger_pkey PRIMARY KEY (id);

ALTER TABLE ONLY public.list_check
    ADD CONSTRAINT list_check_pkey PRIMARY KEY (id);

ALTER TABLE ONLY public.list_finding
    ADD CONSTRAINT list_finding_check_id_place_key UNIQUE (check_id, place);

ALTER TABLE ONLY public.list_finding
    ADD CONSTRAINT list_finding_pkey PRIMARY KEY (id);

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

ALTER TABLE ONLY public.media_file
    ADD CONSTRAINT media_file_entry_id_key UNIQUE (entry_id);

ALTER TABLE ONLY public.media_file
    ADD CONSTRAINT media_file_pkey PRIMARY KEY (id);

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
    ADD CONSTRAINT proxy_media_file_id_key UNIQUE (media_file_id);

ALTER TABLE ONLY public.proxy
    ADD CONSTRAINT proxy_pkey PRIMARY KEY (id);

ALTER TABLE ONLY public.proxy_sample
    ADD CONSTRAINT proxy_sample_pkey PRIMARY KEY (media_file_id);

ALTER TABLE ONLY public.reader
    ADD CONSTRAINT reader_pkey PRIMARY KEY (id);

ALTER TABLE ONLY public.reading
    ADD CONSTRAINT reading_pkey PRIMARY KEY (id);

ALTER TABLE ONLY public.recorded
    ADD CONSTRAINT recorded_pkey PRIMARY KEY (id);

ALTER TABLE ONLY public.recording_mode
    ADD CONSTRAINT recording_mode_pkey PRIMARY KEY (id);

ALTER TABLE ONLY public.review
    ADD CONSTRAINT review_pkey PRIMARY KEY (media_file_id);

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

ALTER TABLE ONLY public.stay
    ADD CONSTRAINT stay_pkey PRIMARY KEY (id);

ALTER TABLE ONLY public.take_file
    ADD CONSTRAINT take_file_media_file_id_key UNIQUE (media_file_id);

ALTER TABLE ONLY public.take_file
    ADD CONSTRAINT take_file_pkey PRIMARY KEY (entry_id);

ALTER TABLE ONLY public.take
    ADD CONSTRAINT take_pkey PRIMARY KEY (id);

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

ALTER TABLE ONLY public.without_proxy
    ADD CONSTRAINT without_proxy_pkey PRIMARY KEY (media_file_id);

ALTER TABLE ONLY public.written_list
    ADD CONSTRAINT written_list_pkey PRIMARY KEY (id);

ALTER TABLE ONLY public.written_list
    ADD CONSTRAINT written_list_task_id_algorithm_key UNIQUE (task_id, algorithm);

CREATE INDEX attempt_open ON public.attempt USING btree (host) WHERE (ended_at IS NULL);

CREATE INDEX attempt_task ON public.attempt USING btree (task_id);

CREATE INDEX bag_deliverable ON public.bag USING btree (deliverable_id);

CREATE INDEX bag_newest ON public.bag USING btree (production_id, written_at DESC, id DESC);

CREATE INDEX bag_production ON public.bag USING btree (production_id);

CREATE INDEX bag_volume ON public.bag USING btree (volume_id);

CREATE UNIQUE INDEX card_name ON public.card USING btree (lower(name));

CREATE INDEX chart_copy_oldest ON public.chart_copy USING btree (volume_id, oldest_at);

CREATE INDEX chart_due_at ON public.chart_due USING btree (due_at);

CREATE INDEX chart_due_load ON public.chart_due USING btree (load_id);

CREATE INDEX chart_line_client ON public.chart_line USING btree (client_id, place, load_id);

CREATE INDEX chart_line_in_danger ON public.chart_line USING btree (place, load_id) WHERE (danger > 0);

CREATE INDEX chart_line_place ON public.chart_line USING btree (place, load_id);

CREATE INDEX chart_line_production ON public.chart_line USING btree (production_id, place, load_id);

CREATE INDEX chart_line_worst ON public.chart_line USING btree (danger DESC, place) WHERE (danger > 0);

CREATE INDEX chart_line_year ON public.chart_line USING btree (year, place, load_id);

CREATE INDEX chart_place_load ON public.chart_place USING btree (load_id);

CREATE UNIQUE INDEX clear_rule_name ON public.clear_rule USING btree (lower(name));

CREATE UNIQUE INDEX client_name ON public.client USING btree (lower(name));

CREATE INDEX client_rule ON public.client USING btree (rule_id);

CREATE INDEX comparison_load ON public.comparison USING btree (load_id);

CREATE INDEX comparison_stay ON public.comparison USING btree (stay_id, id DESC);

CREATE INDEX copy_file_copy ON public.copy_file USING btree (load_id, volume_id, on_card, standing, proved_at);

CREATE INDEX copy_file_entry ON public.copy_file USING btree (entry_id);

CREATE INDEX copy_file_proof ON public.copy_file USING btree (proof_id);

CREATE INDEX copy_plan_volume ON public.mirror USING btree (volume_id);

CREATE INDEX deliverable_media_file ON public.deliverable USING btree (media_file_id);

CREATE INDEX deliverable_newest ON public.deliverable USING btree (production_id, made_at DESC, id DESC);

CREATE INDEX deliverable_production ON public.deliverable USING btree (production_id);

CREATE INDEX deliverable_volume ON public.deliverable USING btree (volume_id);

CREATE INDEX edit_at ON public.edit USING btree (at);

CREATE INDEX event_load ON public.journal USING btree (load_id, kind);

CREATE INDEX event_media_file ON public.journal USING btree (media_file_id);

CREATE INDEX event_production ON public.journal USING btree (production_id);

CREATE INDEX event_volume ON public.journal USING btree (volume_id);

CREATE UNIQUE INDEX kept_chart_print ON public.kept_chart USING btree (print) WHERE (taken_back_at IS NULL);

CREATE INDEX kept_copy_volume ON public.kept_copy USING btree (volume_id, line_id);

CREATE INDEX kept_line_client ON public.kept_line USING btree (client_id, place, id);

CREATE INDEX kept_line_import ON public.kept_line USING btree (import_id);

CREATE INDEX kept_line_load ON public.kept_line USING btree (load_id);

CREATE INDEX kept_line_name ON public.kept_line USING btree (lower(production), lower(label));

CREATE INDEX kept_line_place ON public.kept_line USING btree (place, id) WHERE (shown AND (load_id IS NULL));

CREATE INDEX kept_line_production ON public.kept_line USING btree (production_id, place, id);

CREATE INDEX kept_line_year ON public.kept_line USING btree (year, place, id);

CREATE INDEX ledger_production ON public.ledger USING btree (production_id);

CREATE INDEX ledger_volume ON public.ledger USING btree (volume_id);

CREATE INDEX list_check_lately ON public.list_check USING btree (ended_at, id);

CREATE INDEX list_finding_by_kind ON public.list_finding USING btree (check_id, kind, place);

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

CREATE INDEX media_file_film_path ON public.media_file USING btree (production_id, sort_path, id) WHERE (shown AND has_video);

CREATE INDEX media_file_film_proxy ON public.media_file USING btree (production_id, proxy, sort_path, id) WHERE (shown AND has_video);

CREATE INDEX media_file_film_size ON public.media_file USING btree (production_id, size_bytes, id) WHERE (shown AND has_video);

CREATE INDEX media_file_filmed ON public.media_file USING btree (production_id, filmed_order, id) WHERE shown;

CREATE INDEX media_file_load ON public.media_file USING btree (load_id);

CREATE INDEX media_file_load_path ON public.media_file USING btree (load_id, sort_path, id) WHERE shown;

CREATE INDEX media_file_load_recorded ON public.media_file USING btree (load_id, recorded_at, id) WHERE shown;

CREATE INDEX media_file_load_seconds ON public.media_file USING btree (load_id, seconds, id) WHERE shown;

CREATE INDEX media_file_load_size ON public.media_file USING btree (load_id, size_bytes, id) WHERE shown;

CREATE INDEX media_file_name_begin ON public.media_file USING btree (lower(name) text_pattern_ops);

CREATE INDEX media_file_path ON public.media_file USING btree (production_id, sort_path, id) WHERE shown;

CREATE INDEX media_file_production ON public.media_file USING btree (production_id);

CREATE INDEX media_file_same ON public.media_file USING btree (same_as) WHERE (same_as IS NOT NULL);

CREATE INDEX media_file_unchecked ON public.media_file USING btree (production_id, sort_path) WHERE (proxy = 'unchecked'::text);

CREATE INDEX media_file_words ON public.media_file USING gin (public.search_words(name));

CREATE INDEX mirror_amiss ON public.mirror USING btree (load_id, volume_id) WHERE (((files_differ + files_changed) + files_missing) > 0);

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

CREATE INDEX production_rule ON public.production USING btree (rule_id);

CREATE INDEX proof_bag ON public.proof USING btree (bag_id) WHERE (bag_id IS NOT NULL);

CREATE INDEX proof_deliverable ON public.proof USING btree (deliverable_id) WHERE (deliverable_id IS NOT NULL);

CREATE INDEX proof_entry ON public.proof USING btree (entry_id, volume_id, id DESC);

CREATE INDEX proof_load ON public.proof USING btree (load_id, volume_id, id DESC);

CREATE INDEX proof_media_file ON public.proof USING btree (media_file_id) WHERE (media_file_id IS NOT NULL);

CREATE INDEX proof_source ON public.proof USING btree (source_volume_id) WHERE (source_volume_id IS NOT NULL);

CREATE INDEX proof_volume ON public.proof USING btree (volume_id);

CREATE INDEX proxy_volume ON public.proxy USING btree (volume_id);

CREATE INDEX reader_load ON public.reader USING btree (load_id);

CREATE UNIQUE INDEX reader_name ON public.reader USING btree (host, lower(name));

CREATE UNIQUE INDEX reader_place ON public.reader USING btree (host, root_path);

CREATE INDEX reader_stay ON public.reader USING btree (stay_id);

CREATE INDEX reader_twin ON public.reader USING btree (twin_id) WHERE (twin_id IS NOT NULL);

CREATE INDEX reading_copy ON public.reading USING btree (load_id, volume_id, id DESC);

CREATE INDEX reading_lately ON public.reading USING btree (volume_id, at);

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

CREATE INDEX stay_load ON public.stay USING btree (load_id);

CREATE UNIQUE INDEX stay_open ON public.stay USING btree (reader_id) WHERE (left_at IS NULL);

CREATE INDEX stay_reader ON public.stay USING btree (reader_id, came_at DESC);

CREATE INDEX stay_twin ON public.stay USING btree (twin_id) WHERE (twin_id IS NOT NULL);

CREATE INDEX take_file_goes_on ON public.take_file USING btree (media_file_id) WHERE (main AND (part > 1));

CREATE INDEX take_file_take ON public.take_file USING btree (take_id, part);

CREATE INDEX take_rig ON public.take USING btree (rig_take_id) WHERE (rig_take_id IS NOT NULL);

CREATE INDEX task_created ON public.task USING btree (created_at DESC);

CREATE UNIQUE INDEX task_idempotency ON public.task USING btree (idempotency_key);

CREATE INDEX task_load ON public.task USING btree (load_id);

CREATE UNIQUE INDEX task_one_open ON public.task USING btree (kind, subject) WHERE (state = ANY (ARRAY['queued'::text, 'running'::text, 'paused'::text]));

CREATE INDEX task_order_open ON public.task_order USING btree (task_id) WHERE (obeyed_at IS NULL);

CREATE INDEX task_production ON public.task USING btree (production_id);

CREATE INDEX task_state ON public.task USING btree (state);

CREATE INDEX twin_reading_latest ON public.twin_reading USING btree (twin_id, id);

CREATE INDEX twin_reading_stay ON public.twin_reading USING btree (stay_id);

CREATE UNIQUE INDEX volume_name ON public.volume USING btree (lower(name));

CREATE INDEX volume_site ON public.volume USING btree (site_id);

CREATE INDEX written_list_lately ON public.written_list USING btree (written_at, id);

CREATE TRIGGER begin_takes AFTER INSERT ON public.media_file REFERENCING NEW TABLE AS new_files FOR EACH STATEMENT EXECUTE FUNCTION public.begin_takes();

CREATE TRIGGER chart_all AFTER UPDATE ON public.clear_rule FOR EACH ROW WHEN ((old.* IS DISTINCT FROM new.*)) EXECUTE FUNCTION public.chart_all();

CREATE TRIGGER chart_all AFTER UPDATE ON public.client FOR EACH ROW WHEN ((old.rule_id IS DISTINCT FROM new.rule_id)) EXECUTE FUNCTION public.chart_all();

CREATE TRIGGER chart_all AFTER UPDATE ON public.setting FOR EACH ROW WHEN (((new.value -> 'ruleId'::text) IS DISTINCT FROM (old.value -> 'ruleId'::text))) EXECUTE FUNCTION public.chart_all();

CREATE TRIGGER chart_all AFTER UPDATE ON public.site FOR EACH ROW WHEN ((old.kind IS DISTINCT FROM new.kind)) EXECUTE FUNCTION public.chart_all();

CREATE TRIGGER chart_all_said AFTER INSERT ON public.setting FOR EACH ROW WHEN ((new.value ? 'ruleId'::text)) EXECUTE FUNCTION public.chart_all();

CREATE TRIGGER chart_files AFTER UPDATE ON public.copy_file REFERENCING NEW TABLE AS new_files FOR EACH STATEMENT EXECUTE FUNCTION public.chart_files();

CREATE TRIGGER chart_load AFTER UPDATE ON public.load FOR EACH ROW WHEN ((old.* IS DISTINCT FROM new.*)) EXECUTE FUNCTION public.chart_load();

CREATE TRIGGER chart_load AFTER UPDATE ON public.load_finding FOR EACH ROW WHEN ((old.* IS DISTINCT FROM new.*)) EXECUTE FUNCTION public.chart_load();

CREATE TRIGGER chart_load AFTER UPDATE ON public.load_summary FOR EACH ROW WHEN ((old.clips <> new.clips)) EXECUTE FUNCTION public.chart_load();

CREATE TRIGGER chart_load AFTER UPDATE ON public.mirror FOR EACH ROW WHEN (((((((((((old.folder IS DISTINCT FROM new.folder) OR (old.present IS DISTINCT FROM new.present)) OR (old.mounted IS DISTINCT FROM new.mounted)) OR (old.files_verified IS DISTINCT FROM new.files_verified)) OR (old.files_memory IS DISTINCT FROM new.files_memory)) OR (old.files_missing IS DISTINCT FROM new.files_missing)) OR (old.files_changed IS DISTINCT FROM new.files_changed)) OR (old.files_doubted IS DISTINCT FROM new.files_doubted)) OR (old.files_differ IS DISTINCT FROM new.files_differ)) OR (old.files_conflict IS DISTINCT FROM new.files_conflict))) EXECUTE FUNCTION public.chart_load();

CREATE TRIGGER chart_load_added AFTER INSERT ON public.load FOR EACH ROW EXECUTE FUNCTION public.chart_load();

CREATE TRIGGER chart_load_added AFTER INSERT OR DELETE ON public.load_finding FOR EACH ROW EXECUTE FUNCTION public.chart_load();

CREATE TRIGGER chart_load_added AFTER INSERT ON public.load_summary FOR EACH ROW EXECUTE FUNCTION public.chart_load();

CREATE TRIGGER chart_load_added AFTER INSERT ON public.mirror FOR EACH ROW EXECUTE FUNCTION public.chart_load();

CREATE TRIGGER chart_production AFTER UPDATE ON public.production FOR EACH ROW WHEN (((((old.client_id IS DISTINCT FROM new.client_id) OR (old.rule_id IS DISTINCT FROM new.rule_id)) OR (old.shoot_on IS DISTINCT FROM new.shoot_on)) OR (old.title IS DISTINCT FROM new.title))) EXECUTE FUNCTION public.chart_production();

CREATE TRIGGER chart_said AFTER INSERT ON public.said FOR EACH ROW EXECUTE FUNCTION public.chart_said();

CREATE TRIGGER chart_volume AFTER UPDATE ON public.mount FOR EACH ROW WHEN (((((old.device -> 'disks'::text) IS DISTINCT FROM (new.device -> 'disks'::text)) OR ((old.device -> 'known'::text) IS DISTINCT FROM (new.device -> 'known'::text))) OR ((old.device -> 'medium'::text) IS DISTINCT FROM (new.device -> 'medium'::text)))) EXECUTE FUNCTION public.chart_volume();

CREATE TRIGGER chart_volume AFTER UPDATE ON public.volume FOR EACH ROW WHEN (((((old.kind IS DISTINCT FROM new.kind) OR (old.site_id IS DISTINCT FROM new.site_id)) OR (old.medium IS DISTINCT FROM new.medium)) OR (old.cycle_days IS DISTINCT FROM new.cycle_days))) EXECUTE FUNCTION public.chart_volume();

CREATE TRIGGER chart_volume_added AFTER INSERT ON public.mount FOR EACH ROW EXECUTE FUNCTION public.chart_volume();

CREATE TRIGGER count_copy_files_insert AFTER INSERT ON public.copy_file REFERENCING NEW TABLE AS new_files FOR EACH STATEMENT EXECUTE FUNCTION public.count_copy_files();

CREATE TRIGGER count_copy_files_update AFTER UPDATE ON public.copy_file REFERENCING OLD TABLE AS old_files NEW TABLE AS new_files FOR EACH STATEMENT EXECUTE FUNCTION public.count_copy_files();

CREATE TRIGGER count_ledger_bytes AFTER INSERT ON public.ledger FOR EACH ROW EXECUTE FUNCTION public.count_ledger_bytes();

CREATE TRIGGER count_media_files_insert AFTER INSERT ON public.media_file REFERENCING NEW TABLE AS new_files FOR EACH STATEMENT EXECUTE FUNCTION public.count_media_files();

CREATE TRIGGER count_media_files_update AFTER UPDATE ON public.media_file REFERENCING OLD TABLE AS old_files NEW TABLE AS new_files FOR EACH STATEMENT EXECUTE FUNCTION public.count_media_files();

CREATE TRIGGER count_mirror_bytes AFTER UPDATE OF copied_bytes ON public.mirror FOR EACH ROW WHEN ((new.copied_bytes <> old.copied_bytes)) EXECUTE FUNCTION public.count_mirror_bytes();

CREATE TRIGGER count_output_bytes AFTER INSERT ON public.bag FOR EACH ROW EXECUTE FUNCTION public.count_output_bytes();

CREATE TRIGGER count_output_bytes AFTER INSERT ON public.deliverable FOR EACH ROW EXECUTE FUNCTION public.count_output_bytes();

CREATE TRIGGER count_proxy_bytes AFTER INSERT OR UPDATE ON public.proxy FOR EACH ROW EXECUTE FUNCTION public.count_proxy_bytes();

CREATE TRIGGER follow_entry AFTER UPDATE OF state, copied ON public.load_entry FOR EACH ROW WHEN (((old.state <> new.state) OR ((new.state = 'gone'::text) AND (old.copied <> new.copied)))) EXECUTE FUNCTION public.follow_entry();

CREATE TRIGGER follow_without_proxy AFTER INSERT OR DELETE ON public.without_proxy FOR EACH ROW EXECUTE FUNCTION public.follow_without_proxy();

CREATE TRIGGER media_file_recorded BEFORE INSERT OR UPDATE OF probe, shift_ms, path_text ON public.media_file FOR EACH ROW EXECUTE FUNCTION public.media_file_recorded();

CREATE TRIGGER move_proxy_bytes AFTER UPDATE OF production_id ON public.media_file FOR EACH ROW WHEN ((old.production_id <> new.production_id)) EXECUTE FUNCTION public.move_proxy_bytes();

CREATE TRIGGER new_load_summary AFTER INSERT ON public.load FOR EACH ROW EXECUTE FUNCTION public.new_load_summary();

ALTER TABLE ONLY public.attempt
    ADD CONSTRAINT attempt_task_id_fkey FOREIGN KEY (task_id) REFERENCES public.task(id);

ALTER TABLE ONLY public.bag
    ADD CONSTRAINT bag_deliverable_id_fkey FOREIGN KEY (deliverable_id) REFERENCES public.deliverable(id);

ALTER TABLE ONLY public.bag
    ADD CONSTRAINT bag_production_id_fkey FOREIGN KEY (production_id) REFERENCES public.production(id);

ALTER TABLE ONLY public.bag
    ADD CONSTRAINT bag_volume_id_fkey FOREIGN KEY (volume_id) REFERENCES public.volume(id);

ALTER TABLE ONLY public.card_stamp
    ADD CONSTRAINT card_stamp_load_id_fkey FOREIGN KEY (load_id) REFERENCES public.load(id);

ALTER TABLE ONLY public.chart_copy
    ADD CONSTRAINT chart_copy_load_id_fkey FOREIGN KEY (load_id) REFERENCES public.load(id);

ALTER TABLE ONLY public.chart_copy
    ADD CONSTRAINT chart_copy_volume_id_fkey FOREIGN KEY (volume_id) REFERENCES public.volume(id);

ALTER TABLE ONLY public.chart_due
    ADD CONSTRAINT chart_due_load_id_fkey FOREIGN KEY (load_id) REFERENCES public.load(id);

ALTER TABLE ONLY public.chart_line
    ADD CONSTRAINT chart_line_load_id_fkey FOREIGN KEY (load_id) REFERENCES public.load(id);

ALTER TABLE ONLY public.chart_place
    ADD CONSTRAINT chart_place_load_id_fkey FOREIGN KEY (load_id) REFERENCES public.load(id);

ALTER TABLE ONLY public.client
    ADD CONSTRAINT client_rule_id_fkey FOREIGN KEY (rule_id) REFERENCES public.clear_rule(id);

ALTER TABLE ONLY public.comparison
    ADD CONSTRAINT comparison_load_id_fkey FOREIGN KEY (load_id) REFERENCES public.load(id);

ALTER TABLE ONLY public.comparison
    ADD CONSTRAINT comparison_stay_id_fkey FOREIGN KEY (stay_id) REFERENCES public.stay(id);

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
    ADD CONSTRAINT deliverable_media_file_id_fkey FOREIGN KEY (media_file_id) REFERENCES public.media_file(id);

ALTER TABLE ONLY public.deliverable
    ADD CONSTRAINT deliverable_production_id_fkey FOREIGN KEY (production_id) REFERENCES public.production(id);

ALTER TABLE ONLY public.deliverable
    ADD CONSTRAINT deliverable_volume_id_fkey FOREIGN KEY (volume_id) REFERENCES public.volume(id);

ALTER TABLE ONLY public.kept_copy
    ADD CONSTRAINT kept_copy_line_id_fkey FOREIGN KEY (line_id) REFERENCES public.kept_line(id);

ALTER TABLE ONLY public.kept_copy
    ADD CONSTRAINT kept_copy_volume_id_fkey FOREIGN KEY (volume_id) REFERENCES public.volume(id);

ALTER TABLE ONLY public.kept_line
    ADD CONSTRAINT kept_line_import_id_fkey FOREIGN KEY (import_id) REFERENCES public.kept_chart(id);

ALTER TABLE ONLY public.kept_line
    ADD CONSTRAINT kept_line_load_id_fkey FOREIGN KEY (load_id) REFERENCES public.load(id);

ALTER TABLE ONLY public.ledger
    ADD CONSTRAINT ledger_production_id_fkey FOREIGN KEY (production_id) REFERENCES public.production(id);

ALTER TABLE ONLY public.ledger
    ADD CONSTRAINT ledger_volume_id_fkey FOREIGN KEY (volume_id) REFERENCES public.volume(id);

ALTER TABLE ONLY public.list_check
    ADD CONSTRAINT list_check_id_fkey FOREIGN KEY (id) REFERENCES public.task(id);

ALTER TABLE ONLY public.list_finding
    ADD CONSTRAINT list_finding_check_id_fkey FOREIGN KEY (check_id) REFERENCES public.list_check(id) ON DELETE CASCADE;

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

ALTER TABLE ONLY public.media_file
    ADD CONSTRAINT media_file_entry_id_fkey FOREIGN KEY (entry_id) REFERENCES public.load_entry(id);

ALTER TABLE ONLY public.media_file
    ADD CONSTRAINT media_file_load_id_fkey FOREIGN KEY (load_id) REFERENCES public.load(id);

ALTER TABLE ONLY public.media_file
    ADD CONSTRAINT media_file_production_id_fkey FOREIGN KEY (production_id) REFERENCES public.production(id);

ALTER TABLE ONLY public.media_file
    ADD CONSTRAINT media_file_same_as_fkey FOREIGN KEY (same_as) REFERENCES public.media_file(id);

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

ALTER TABLE ONLY public.production
    ADD CONSTRAINT production_rule_id_fkey FOREIGN KEY (rule_id) REFERENCES public.clear_rule(id);

ALTER TABLE ONLY public.proof
    ADD CONSTRAINT proof_bag_id_fkey FOREIGN KEY (bag_id) REFERENCES public.bag(id);

ALTER TABLE ONLY public.proof
    ADD CONSTRAINT proof_deliverable_id_fkey FOREIGN KEY (deliverable_id) REFERENCES public.deliverable(id);

ALTER TABLE ONLY public.proof
    ADD CONSTRAINT proof_entry_id_fkey FOREIGN KEY (entry_id) REFERENCES public.load_entry(id);

ALTER TABLE ONLY public.proof
    ADD CONSTRAINT proof_load_id_fkey FOREIGN KEY (load_id) REFERENCES public.load(id);

ALTER TABLE ONLY public.proof
    ADD CONSTRAINT proof_media_file_id_fkey FOREIGN KEY (media_file_id) REFERENCES public.media_file(id);

ALTER TABLE ONLY public.proof
    ADD CONSTRAINT proof_source_volume_id_fkey FOREIGN KEY (source_volume_id) REFERENCES public.volume(id);

ALTER TABLE ONLY public.proof
    ADD CONSTRAINT proof_volume_id_fkey FOREIGN KEY (volume_id) REFERENCES public.volume(id);

ALTER TABLE ONLY public.proxy
    ADD CONSTRAINT proxy_media_file_id_fkey FOREIGN KEY (media_file_id) REFERENCES public.media_file(id);

ALTER TABLE ONLY public.proxy_sample
    ADD CONSTRAINT proxy_sample_media_file_id_fkey FOREIGN KEY (media_file_id) REFERENCES public.media_file(id) ON DELETE CASCADE;

ALTER TABLE ONLY public.proxy
    ADD CONSTRAINT proxy_volume_id_fkey FOREIGN KEY (volume_id) REFERENCES public.volume(id);

ALTER TABLE ONLY public.reader
    ADD CONSTRAINT reader_load_id_fkey FOREIGN KEY (load_id) REFERENCES public.load(id);

ALTER TABLE ONLY public.reader
    ADD CONSTRAINT reader_stay_id_fkey FOREIGN KEY (stay_id) REFERENCES public.stay(id);

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
    ADD CONSTRAINT review_media_file_id_fkey FOREIGN KEY (media_file_id) REFERENCES public.media_file(id);

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

ALTER TABLE ONLY public.stay
    ADD CONSTRAINT stay_load_id_fkey FOREIGN KEY (load_id) REFERENCES public.load(id);

ALTER TABLE ONLY public.stay
    ADD CONSTRAINT stay_reader_id_fkey FOREIGN KEY (reader_id) REFERENCES public.reader(id);

ALTER TABLE ONLY public.stay
    ADD CONSTRAINT stay_twin_id_fkey FOREIGN KEY (twin_id) REFERENCES public.twin(id);

ALTER TABLE ONLY public.take_file
    ADD CONSTRAINT take_file_entry_id_fkey FOREIGN KEY (entry_id) REFERENCES public.load_entry(id);

ALTER TABLE ONLY public.take_file
    ADD CONSTRAINT take_file_media_file_id_fkey FOREIGN KEY (media_file_id) REFERENCES public.media_file(id);

ALTER TABLE ONLY public.take_file
    ADD CONSTRAINT take_file_take_id_fkey FOREIGN KEY (take_id) REFERENCES public.take(id);

ALTER TABLE ONLY public.take
    ADD CONSTRAINT take_id_fkey FOREIGN KEY (id) REFERENCES public.media_file(id);

ALTER TABLE ONLY public.take
    ADD CONSTRAINT take_rig_take_id_fkey FOREIGN KEY (rig_take_id) REFERENCES public.take(id) ON DELETE SET NULL;

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
    ADD CONSTRAINT twin_reading_stay_id_fkey FOREIGN KEY (stay_id) REFERENCES public.stay(id);

ALTER TABLE ONLY public.twin_reading
    ADD CONSTRAINT twin_reading_twin_id_fkey FOREIGN KEY (twin_id) REFERENCES public.twin(id);

ALTER TABLE ONLY public.volume
    ADD CONSTRAINT volume_site_id_fkey FOREIGN KEY (site_id) REFERENCES public.site(id);

ALTER TABLE ONLY public.without_proxy
    ADD CONSTRAINT without_proxy_media_file_id_fkey FOREIGN KEY (media_file_id) REFERENCES public.media_file(id) ON DELETE CASCADE;

ALTER TABLE ONLY public.written_list
    ADD CONSTRAINT written_list_task_id_fkey FOREIGN KEY (task_id) REFERENCES public.task(id);
