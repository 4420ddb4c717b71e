package store_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/bench"
	"gyrophane/store"
	"gyrophane/store/storetest"
)

// With a painter all that is the painter's goes, from every table that there is; what is another's stays.
func TestAPainterIsDeletedWhole(t *testing.T) {
	address := storetest.Database(t)
	s := on(t, address)
	ada, eve := painter(t, s, "Ada"), painter(t, s, "Eve")
	for _, p := range []store.Painter{ada, eve} {
		w := wheel(t, s, p)
		tubes := add(t, s, p, "night", "dusk")
		begun, err := s.BeginSitting(ctx, p.ID, store.Sitting{WheelID: w.ID, Name: "Low water", Plan: aSheet()})
		require.NoError(t, err)
		_, err = s.TellSitting(ctx, p.ID, begun.ID, []store.SittingEvent{told("one", bench.Begun)}, notEnded)
		require.NoError(t, err)
		_, err = s.Take(ctx, p.ID, store.Taking{SittingID: &begun.ID, Medium: "gouache", Readings: 12, Sittings: 1, Strengths: []store.TakenStrength{{TubeID: tubes[0].ID, Was: 1, Strength: 1.5, Low: 1.4, High: 1.6}}}, "", nil)
		require.NoError(t, err)
		_, err = s.KeepComparison(ctx, p.ID, store.Comparison{Address: "systems=1", Note: "dusk"}, none)
		require.NoError(t, err)
		require.NoError(t, s.BeginSession(ctx, "token of "+p.Name, store.Session{PainterID: p.ID, Device: "tablet", ExpiresAt: soon()}))
	}
	do(t, address, `insert into put_aside (from_table, why, content) select 'tubes', 'a test', to_jsonb(t) from tubes t`)
	require.NoError(t, s.DropPainter(ctx, ada.ID))
	// No table that says whose a row is has one of hers.
	count := func(id int64) string {
		return `do $$ declare t record; n bigint; found text := ''; begin
			for t in select table_name from information_schema.columns where table_schema = current_schema() and column_name = 'painter_id' loop
				execute format('select count(*) from %I where painter_id = $1', t.table_name) into n using ` + fmt.Sprint(id) + `::bigint;
				if n > 0 then found := found || t.table_name || ' '; end if;
			end loop;
			select count(*) into n from put_aside where content->>'painter_id' = '` + fmt.Sprint(id) + `';
			if n > 0 then found := found || 'put_aside '; end if;
			if found <> '' then raise exception 'left in %', found; end if;
		end $$`
	}
	require.NoError(t, try(t, address, count(ada.ID)))
	left := try(t, address, count(eve.ID))
	require.Error(t, left)
	for _, table := range []string{"wheels", "wheel_versions", "systems", "tubes", "tube_versions", "sittings", "sitting_events", "takings", "taken_strengths", "comparisons", "sessions", "put_aside"} {
		assert.ErrorContains(t, left, table+" ", "another's stay")
	}
	require.ErrorIs(t, s.DropPainter(ctx, ada.ID), store.ErrNotFound)
}

func TestAWheelIsDeletedAndItsSittingsStay(t *testing.T) {
	s := fresh(t)
	ada, eve := painter(t, s, "Ada"), painter(t, s, "Eve")
	w := wheel(t, s, ada)
	begun, err := s.BeginSitting(ctx, ada.ID, store.Sitting{WheelID: w.ID, Name: "Low water", Plan: aSheet()})
	require.NoError(t, err)
	require.ErrorIs(t, s.DropWheel(ctx, eve.ID, w.ID), store.ErrNotFound)
	require.NoError(t, s.DropWheel(ctx, ada.ID, w.ID))
	_, err = s.Wheel(ctx, ada.ID, w.ID)
	require.ErrorIs(t, err, store.ErrNotFound)
	kept, _, err := s.Sitting(ctx, ada.ID, begun.ID)
	require.NoError(t, err)
	assert.Zero(t, kept.WheelID)
	assert.Equal(t, aSheet(), kept.Plan, "frozen as it was")
	require.ErrorIs(t, s.DropWheel(ctx, ada.ID, w.ID), store.ErrNotFound)
}
