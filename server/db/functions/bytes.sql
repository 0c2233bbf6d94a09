-- What each production has on each volume, by class: kept in the transaction that writes what is counted.
create or replace function add_production_bytes(production uuid, volume uuid, class text, bytes bigint) returns void language sql as $$
  insert into production_bytes (production_id, volume_id, byte_class, size_bytes)
  select production, volume, class, bytes where bytes <> 0
  on conflict (production_id, volume_id, byte_class) do update set size_bytes = production_bytes.size_bytes + excluded.size_bytes $$;

create or replace function count_mirror_bytes() returns trigger language plpgsql as $$
  begin
    perform add_production_bytes(
      (select production_id from load where id = new.load_id), new.volume_id, 'originals', new.copied_bytes - old.copied_bytes);
    return null;
  end $$;
create or replace trigger count_mirror_bytes after update of copied_bytes on mirror for each row
  when (new.copied_bytes <> old.copied_bytes) execute function count_mirror_bytes();

create or replace function count_proxy_bytes() returns trigger language plpgsql as $$
  begin
    if tg_op = 'UPDATE' then
      perform add_production_bytes(
        (select production_id from media_file where id = old.media_file_id), old.volume_id, 'generated', -old.size_bytes);
    end if;
    perform add_production_bytes(
      (select production_id from media_file where id = new.media_file_id), new.volume_id, 'generated', new.size_bytes);
    return null;
  end $$;
create or replace trigger count_proxy_bytes after insert or update on proxy
  for each row execute function count_proxy_bytes();

-- Bytes that were made of a media file go with it.
create or replace function move_proxy_bytes() returns trigger language plpgsql as $$
  begin
    perform add_production_bytes(old.production_id, volume_id, 'generated', -size_bytes) from proxy where media_file_id = new.id;
    perform add_production_bytes(new.production_id, volume_id, 'generated', size_bytes) from proxy where media_file_id = new.id;
    return null;
  end $$;
create or replace trigger move_proxy_bytes after update of production_id on media_file for each row
  when (old.production_id <> new.production_id) execute function move_proxy_bytes();

create or replace function count_output_bytes() returns trigger language plpgsql as $$
  begin
    perform add_production_bytes(new.production_id, new.volume_id, 'outputs', new.size_bytes);
    return null;
  end $$;
create or replace trigger count_output_bytes after insert on deliverable
  for each row execute function count_output_bytes();
create or replace trigger count_output_bytes after insert on bag
  for each row execute function count_output_bytes();

create or replace function count_ledger_bytes() returns trigger language plpgsql as $$
  begin
    perform add_production_bytes(new.production_id, new.volume_id, new.byte_class, new.size_bytes);
    return null;
  end $$;
create or replace trigger count_ledger_bytes after insert on ledger
  for each row execute function count_ledger_bytes();
