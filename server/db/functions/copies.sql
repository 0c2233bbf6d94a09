-- How many files of each mirror stand how, what they come to, and a sum that tells which they are: kept in the transaction that writes a file's standing.
create or replace function count_copy_files() returns trigger language plpgsql as $$
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

create or replace trigger count_copy_files_insert after insert on copy_file
  referencing new table as new_files for each statement execute function count_copy_files();
create or replace trigger count_copy_files_update after update on copy_file
  referencing new table as new_files old table as old_files for each statement execute function count_copy_files();
