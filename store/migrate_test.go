package store

import (
	"context"
	"fmt"
	"os"
	"slices"
	"strconv"
	"strings"
	"testing"
	"time"

	"github.com/go-gormigrate/gormigrate/v2"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/colour"
	"gyrophane/core/paint"
	"gyrophane/core/wheel"
	"gyrophane/store/storetest"
)

func TestTriadsOfBeforeBecomeSystemsOfEveryKind(t *testing.T) {
	ctx := context.Background()
	s, err := Open(storetest.Database(t))
	require.NoError(t, err)
	t.Cleanup(func() { require.NoError(t, s.Close()) })
	require.NoError(t, gormigrate.New(s.db, gormigrate.DefaultOptions, migrations).MigrateTo("0003_boxes"))
	require.NoError(t, s.db.Exec(`
		insert into painters (name, created_at) values ('Ada', now());
		insert into systems (painter_id, name, kind, roles, created_at, updated_at) values (1, 'Old', 'triad', '{"yellow":"PY74","red":"PR254","blue":"PB29"}', now(), now());
		insert into wheels (painter_id, system_id, name, snapshot, settings, library_version, created_at, updated_at)
			values (1, 1, 'Old', '{"yellow":"PY74","red":"PR254","blue":"PB29"}', '{"spacing":"contrast","medium":"oil","light":"A","judged":"wet"}', '2026.1', now(), now());
		insert into wheel_versions (painter_id, wheel_id, version, name, snapshot, settings, library_version, created_at)
			select painter_id, id, version, name, snapshot, settings, library_version, created_at from wheels;`).Error)
	require.NoError(t, s.Migrate(ctx))

	w, err := s.Wheel(ctx, 1, 1)
	require.NoError(t, err)
	earlier, err := s.WheelHistory(ctx, 1, 1)
	require.NoError(t, err)
	require.Len(t, earlier, 1)
	for _, c := range []WheelContent{w.WheelContent, earlier[0].WheelContent} {
		assert.Equal(t, wheel.RYB, c.Snapshot.System.Kind)
		assert.Equal(t, [3][]string{{"PY74"}, {"PR254"}, {"PB29"}}, c.Snapshot.System.Roles)
		assert.Equal(t, "oil", c.Settings.Medium)
		assert.Equal(t, "contrast", c.Settings.Choices.Spacing)
		assert.Equal(t, "run", c.Settings.Choices.Order)
		assert.False(t, c.Archived)
	}
}

// Rows that break a key which came later are put aside whole and named, and nothing of them
// is lost.
func TestRowsThatBreakANewKeyArePutAside(t *testing.T) {
	ctx := context.Background()
	s, err := Open(storetest.Database(t))
	require.NoError(t, err)
	t.Cleanup(func() { require.NoError(t, s.Close()) })
	require.NoError(t, gormigrate.New(s.db, gormigrate.DefaultOptions, migrations).MigrateTo("202611-strengths"))
	require.NoError(t, s.db.Exec(`
		insert into painters (name, created_at) values ('Ada', now()), ('Eve', now());
		insert into sittings (painter_id, wheel_id, name, plan, created_at, updated_at) values (1, 77, 'Low water', '{}', now(), now());
		insert into sitting_events (painter_id, sitting_id, event_id, at, device, number, offset_ms, revision, event, created_at)
			values (1, 1, 'own', now(), '', 1, 0, 0, '{"kind":"paused"}', now()), (2, 1, 'stray', now(), '', 1, 0, 0, '{"kind":"ended"}', now());
		insert into sitting_photos (painter_id, sitting_id, jpeg, width, height, standin, created_at) values (2, 1, '\xffd8', 1, 1, false, now());
		insert into takings (painter_id, sitting_id, medium, readings, sittings, created_at) values (2, 1, 'oil', 3, 1, now());`).Error)
	next, err := s.Pending(ctx)
	require.NoError(t, err)
	assert.Equal(t, "202611-owner-keys", next)
	require.NoError(t, s.Migrate(ctx))
	next, err = s.Pending(ctx)
	require.NoError(t, err)
	assert.Empty(t, next)

	kept, events, err := s.Sitting(ctx, 1, 1)
	require.NoError(t, err)
	assert.Zero(t, kept.WheelID)
	require.Len(t, events, 1)
	assert.Equal(t, "own", events[0].EventID)
	aside, err := s.PutAside(ctx)
	require.NoError(t, err)
	var from []string
	for _, one := range aside {
		from = append(from, one.FromTable)
	}
	assert.Equal(t, []string{"sittings", "sitting_events", "sitting_photos", "takings"}, from)
	var photo string
	require.NoError(t, s.db.Raw("select content->>'jpeg' from put_aside where from_table = 'sitting_photos'").Scan(&photo).Error)
	assert.Equal(t, `\xffd8`, photo, "whole, with its pixels")

	require.NoError(t, gormigrate.New(s.db, gormigrate.DefaultOptions, migrations).RollbackTo("202611-strengths"))
	require.NoError(t, s.Migrate(ctx))
}

// A strength that was taken before all stood on one scale becomes what leaves the tube's tint as it
// was, with its interval and all that went before it; a paint of own curves stays as it is.
func TestStrengthsOfBeforeComeToTheOneScale(t *testing.T) {
	ctx := context.Background()
	s, err := Open(storetest.Database(t))
	require.NoError(t, err)
	t.Cleanup(func() { require.NoError(t, s.Close()) })
	require.NoError(t, gormigrate.New(s.db, gormigrate.DefaultOptions, migrations).MigrateTo("202611-comparisons-told"))
	require.NoError(t, s.db.Exec(`
		insert into painters (name, created_at) values ('Ada', now());
		insert into tubes (painter_id, definition, nickname, grade, note, state, learned, created_at, updated_at) values
			(1, '{"v":1,"library":"PB29"}', '', 'artist', '', 'in', 1.8, now(), now()), (1, '{"v":1,"name":"mine"}', '', 'artist', '', 'in', 1.8, now(), now());
		insert into takings (painter_id, medium, readings, sittings, created_at) values (1, 'oil', 12, 1, now()), (1, 'oil', 12, 1, now());
		insert into taken_strengths (taking_id, tube_id, painter_id, was, strength, low, high) values (1, 1, 1, 1, 1.5, 1.3, 1.7), (2, 1, 1, 1.5, 1.8, 1.6, 2), (2, 2, 1, 1, 1.8, 1.6, 2);
		insert into sittings (painter_id, name, plan, created_at, updated_at) values (1, 'Low water',
			'{"v":1,"medium":"oil","paints":{"PY184":{"definition":{"v":1,"library":"PY184","of":"2026.2"},"strength":1},"tube-1":{"definition":{"v":1,"library":"PB29"},"strength":1.8},"tube-2":{"definition":{"v":1,"name":"mine"},"strength":1}}}', now(), now());`).Error)
	require.NoError(t, s.Migrate(ctx))
	takings, err := s.Takings(ctx, 1)
	require.NoError(t, err)
	require.Len(t, takings, 2)
	last := takings[0].Strengths
	assert.Equal(t, []string{firstOneScale, ""}, []string{last[0].Library, last[1].Library})
	assert.Equal(t, 1.8, last[1].Strength, "own curves know no library")
	for _, c := range []struct{ was, is float64 }{{1.8, last[0].Strength}, {1.6, last[0].Low}, {2, last[0].High}, {1.5, last[0].Was}, {1.5, takings[1].Strengths[0].Strength}} {
		assert.Less(t, c.is, c.was, "an ordinary tube is stronger now")
		then, now := tintOf(t, beforeOneScale, c.was), tintOf(t, firstOneScale, c.is)
		assert.InDelta(t, then.L, now.L, 1)
		assert.Less(t, colour.Difference(then, now), 1.5)
	}
	tube, err := s.Tube(ctx, 1, 1)
	require.NoError(t, err)
	assert.InDelta(t, last[0].Strength, *tube.Learned, 1e-9)
	var plan string
	require.NoError(t, s.db.Raw("select plan from sittings").Scan(&plan).Error)
	assert.Contains(t, plan, `"of": "2026.2"`)
	assert.Contains(t, plan, `"of": "2026.3"`)

	require.NoError(t, gormigrate.New(s.db, gormigrate.DefaultOptions, migrations).RollbackTo("202611-comparisons-told"))
	var back float64
	require.NoError(t, s.db.Raw("select learned from tubes where id = 1").Scan(&back).Error)
	assert.InDelta(t, 1.8, back, 0.01)
}

// tintOf is the 1:9 tint of an ultramarine of some strength as a version of the library has it.
func tintOf(t *testing.T, version string, strength float64) colour.Lab {
	t.Helper()
	p, err := paint.FindOf("PB29", version)
	require.NoError(t, err)
	white, err := paint.Find("PW6")
	require.NoError(t, err)
	m, err := paint.Mix(paint.Part{Paint: p, Parts: strength}, paint.Part{Paint: white, Parts: 9})
	require.NoError(t, err)
	look := m.Masstone()
	return look.Lab()
}

// A database of many sittings is brought up to date within a bounded time: GYROPHANE_SITTINGS says of how many (make
// load: 50 000), and some hundred a second is the least.
func TestManySittingsAreBroughtUpToDateInBoundedTime(t *testing.T) {
	sittings := 500
	if said, err := strconv.Atoi(os.Getenv("GYROPHANE_SITTINGS")); err == nil {
		sittings = said
	}
	s, err := Open(storetest.Database(t))
	require.NoError(t, err)
	t.Cleanup(func() { require.NoError(t, s.Close()) })
	require.NoError(t, gormigrate.New(s.db, gormigrate.DefaultOptions, migrations).MigrateTo("202611-devices"))
	require.NoError(t, s.db.Exec(fmt.Sprintf(`
		insert into painters (name, created_at) select 'Painter ' || n, now() from generate_series(1, 50) n;
		insert into sittings (painter_id, name, plan, created_at, updated_at)
			select 1 + mod(n, 50), 'Low water', jsonb_build_object('v', 1, 'medium', 'oil', 'regions', (select jsonb_agg(jsonb_build_object('id', md5(n::text || k), 'parts', k)) from generate_series(1, 40) k)), now(), now() from generate_series(1, %d) n;
		insert into sitting_events (painter_id, sitting_id, event_id, at, device, number, offset_ms, revision, event, created_at)
			select s.painter_id, s.id, 'event ' || k, now(), 'tablet', k, 0, k, '{"v":1,"id":"x","kind":"painted","region":"green"}', now() from sittings s, generate_series(1, 30) k;
		insert into sitting_readings (painter_id, sitting_id, region, l, a, b, source, wet, medium, minutes, spread, doubt, created_at)
			select s.painter_id, s.id, 'green', 50, 0, 0, 'photo', false, 'oil', 1, 1, '', now() from sittings s, generate_series(1, 12) k;`, sittings)).Error)
	began := time.Now()
	ctx, cancel := context.WithTimeout(context.Background(), 30*time.Second+time.Duration(sittings)*5*time.Millisecond)
	defer cancel()
	require.NoError(t, s.Migrate(ctx))
	t.Logf("%d sittings, %d events, %d readings: %.1f s", sittings, 30*sittings, 12*sittings, time.Since(began).Seconds())
	var without int64
	require.NoError(t, s.db.Raw("select count(*) from sittings where version_vector = '{}' or uid is null").Scan(&without).Error)
	assert.Zero(t, without)
}

// column is what a version relies on in a column of a table.
type column struct {
	TableName, ColumnName, DataType string
	Needed                          bool // a row cannot be written without it
}

func columnsOf(t *testing.T, s *Store) map[string]column {
	t.Helper()
	var all []column
	require.NoError(t, s.db.Raw(`select table_name, column_name, data_type, is_nullable = 'NO' and column_default is null and is_identity = 'NO' as needed
		from information_schema.columns where table_schema = current_schema()`).Scan(&all).Error)
	out := map[string]column{}
	for _, c := range all {
		out[c.TableName+"."+c.ColumnName] = c
	}
	return out
}

// onlyAddsSince is the last migration of the time when all processes were stopped for one.
const onlyAddsSince = "202612-attempts"

// A process of the version before goes on while the next one brings the tables up to date: a migration takes nothing away and asks
// for nothing more of what was there, unless its name says that it narrows.
func TestMigrationsOnlyAdd(t *testing.T) {
	s, err := Open(storetest.Database(t))
	require.NoError(t, err)
	t.Cleanup(func() { require.NoError(t, s.Close()) })
	from := slices.IndexFunc(migrations, func(m *gormigrate.Migration) bool { return m.ID == onlyAddsSince })
	require.GreaterOrEqual(t, from, 0)
	options := *gormigrate.DefaultOptions
	options.UseTransaction = true
	require.NoError(t, gormigrate.New(s.db, &options, migrations[:from+1]).Migrate())
	before := columnsOf(t, s)
	for n, m := range migrations[from+1:] {
		require.NoError(t, gormigrate.New(s.db, &options, migrations[:from+n+2]).Migrate())
		now := columnsOf(t, s)
		tables := map[string]bool{}
		for _, c := range before {
			tables[c.TableName] = true
		}
		for at, was := range before {
			if !strings.HasSuffix(m.ID, narrows) {
				assert.Equal(t, was, now[at], "%s changes %s", m.ID, at)
			}
		}
		for at, c := range now {
			if _, there := before[at]; !there && tables[c.TableName] {
				assert.False(t, c.Needed, "%s: versions before write no %s", m.ID, at)
			}
		}
		before = now
	}
}
