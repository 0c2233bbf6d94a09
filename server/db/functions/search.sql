-- The words of a file's name, without its ending; an index is built of them.
create or replace function search_words(name text) returns tsvector language sql immutable parallel safe as $$
  select to_tsvector('simple', regexp_replace(regexp_replace(name, '\.[^.]*$', ''), '[^[:alnum:]]+', ' ', 'g')) $$;
