-- Every media file is a take of its own until a look puts the files of a card together.
create or replace function begin_takes() returns trigger language plpgsql as $$
  begin
    insert into take (id) select id from new_files;
    insert into take_file (entry_id, take_id, media_file_id, main, role)
    select entry_id, id, id, true, case when has_picture then 'picture' else 'sound' end from new_files;
    return null;
  end $$;
create or replace trigger begin_takes after insert on media_file
  referencing new table as new_files for each statement execute function begin_takes();

-- A media file lies on its card, and is shown, as its entry says; what goes beside another is shown with it.
create or replace function follow_entry() returns trigger language plpgsql as $$
  begin
    update media_file file set on_card = new.state = 'on-card',
      shown = place.main and (new.state = 'on-card' or (new.state = 'gone' and new.copied))
    from take_file place where file.entry_id = new.id and place.entry_id = new.id;
    return null;
  end $$;
create or replace trigger follow_entry after update of state, copied on load_entry for each row
  when (old.state <> new.state or (new.state = 'gone' and old.copied <> new.copied)) execute function follow_entry();

-- When it was recorded, moved by what is known of its camera's clock. Moving a time is nothing that a generated column may do.
create or replace function media_file_recorded() returns trigger language plpgsql as $$
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
create or replace trigger media_file_recorded before insert or update of probe, shift_ms, path_text on media_file
  for each row execute function media_file_recorded();

create or replace function new_load_summary() returns trigger language plpgsql as $$
  begin
    insert into load_summary (load_id, production_id) values (new.id, new.production_id);
    return null;
  end $$;
create or replace trigger new_load_summary after insert on load
  for each row execute function new_load_summary();

-- Whether a proxy is wanted is what a person said of it last.
create or replace function follow_without_proxy() returns trigger language plpgsql as $$
  begin
    update media_file set proxy_wanted = tg_op = 'DELETE' where id = coalesce(new.media_file_id, old.media_file_id);
    return null;
  end $$;
create or replace trigger follow_without_proxy after insert or delete on without_proxy
  for each row execute function follow_without_proxy();

-- What is counted of a load's media in each production: one card may serve two, and a take in several files is one clip.
create or replace function count_media_files() returns trigger language plpgsql as $$
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
create or replace trigger count_media_files_insert after insert on media_file
  referencing new table as new_files for each statement execute function count_media_files();
create or replace trigger count_media_files_update after update on media_file
  referencing new table as new_files old table as old_files for each statement execute function count_media_files();
