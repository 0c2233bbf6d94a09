-- Whatever a line of the chart is worked out from says when it is otherwise; the lines are written by server/jobs/rules/chartLines.ts.
create or replace function chart_load() returns trigger language plpgsql as $$
  begin
    insert into chart_due (load_id) values (case when tg_table_name = 'load' then (to_jsonb(new)->>'id')::uuid else (to_jsonb(coalesce(new, old))->>'load_id')::uuid end);
    return null;
  end $$;
-- What is written as it was is no news: the observer writes every few seconds what it sees.
create or replace trigger chart_load_added after insert on load for each row execute function chart_load();
create or replace trigger chart_load after update on load for each row when (old.* is distinct from new.*) execute function chart_load();
create or replace trigger chart_load_added after insert on mirror for each row execute function chart_load();
create or replace trigger chart_load after update on mirror for each row
  when ((old.folder, old.present, old.mounted, old.files_verified, old.files_memory, old.files_missing, old.files_changed, old.files_doubted, old.files_differ, old.files_conflict) is distinct from
    (new.folder, new.present, new.mounted, new.files_verified, new.files_memory, new.files_missing, new.files_changed, new.files_doubted, new.files_differ, new.files_conflict)) execute function chart_load();
create or replace trigger chart_load_added after insert on load_summary for each row execute function chart_load();
create or replace trigger chart_load after update on load_summary for each row when (old.clips <> new.clips) execute function chart_load();
create or replace trigger chart_load_added after insert or delete on load_finding for each row execute function chart_load();
create or replace trigger chart_load after update on load_finding for each row when (old.* is distinct from new.*) execute function chart_load();

create or replace function chart_files() returns trigger language plpgsql as $$
  begin
    insert into chart_due (load_id) select distinct load_id from new_files;
    return null;
  end $$;
-- Proved again, a file stands as before, and its proof is a new one.
create or replace trigger chart_files after update on copy_file
  referencing new table as new_files for each statement execute function chart_files();

create or replace function chart_said() returns trigger language plpgsql as $$
  begin
    if new.load_id is not null then
      insert into chart_due (load_id) values (new.load_id);
    else
      insert into chart_due (load_id) select distinct load_id from mirror where volume_id in (new.volume_id, new.other_volume_id);
    end if;
    return null;
  end $$;
create or replace trigger chart_said after insert on said for each row execute function chart_said();

create or replace function chart_production() returns trigger language plpgsql as $$
  begin
    insert into chart_due (load_id)
      select id from load where production_id = new.id union select load_id from load_summary where production_id = new.id;
    return null;
  end $$;
create or replace trigger chart_production after update on production for each row
  when ((old.client_id, old.rule_id, old.shoot_on, old.title) is distinct from (new.client_id, new.rule_id, new.shoot_on, new.title)) execute function chart_production();

create or replace function chart_volume() returns trigger language plpgsql as $$
  begin
    insert into chart_due (load_id) select load_id from mirror where volume_id = (to_jsonb(new)->>case when tg_table_name = 'volume' then 'id' else 'volume_id' end)::uuid;
    return null;
  end $$;
create or replace trigger chart_volume after update on volume for each row
  when ((old.kind, old.site_id, old.medium, old.cycle_days) is distinct from (new.kind, new.site_id, new.medium, new.cycle_days)) execute function chart_volume();
-- A file system has another number at each plugging in; only other disks are news.
create or replace trigger chart_volume_added after insert on mount for each row execute function chart_volume();
create or replace trigger chart_volume after update on mount for each row
  when ((old.device->'disks', old.device->'known', old.device->'medium') is distinct from (new.device->'disks', new.device->'known', new.device->'medium')) execute function chart_volume();

create or replace function chart_all() returns trigger language plpgsql as $$
  begin
    insert into chart_due (load_id) select id from load;
    return null;
  end $$;
create or replace trigger chart_all after update on client for each row when (old.rule_id is distinct from new.rule_id) execute function chart_all();
create or replace trigger chart_all after update on clear_rule for each row when (old.* is distinct from new.*) execute function chart_all();
create or replace trigger chart_all after update on setting for each row
  when (new.value->'ruleId' is distinct from old.value->'ruleId') execute function chart_all();
create or replace trigger chart_all after update on site for each row when (old.kind is distinct from new.kind) execute function chart_all();
create or replace trigger chart_all_said after insert on setting for each row when (new.value ? 'ruleId') execute function chart_all();
