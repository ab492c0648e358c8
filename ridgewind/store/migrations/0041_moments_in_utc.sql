-- When a film was made is kept in UTC. A moment without a zone was this machine's own.
update clip
set recorded_at = case
    when recorded_at glob '*Z' or recorded_at glob '*[+-][0-9][0-9]:[0-9][0-9]'
        then strftime('%Y-%m-%dT%H:%M:%fZ', recorded_at)
    else strftime('%Y-%m-%dT%H:%M:%fZ', recorded_at, 'utc')
end
where recorded_at is not null;
