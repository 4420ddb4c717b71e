package store_test

import (
	"context"
	"database/sql"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/store"
	"gyrophane/store/storetest"
)

// What is done is heard on another store of the same database, and one whose line was cut is told that it missed something.
func TestWhatIsDoneIsHeardElsewhere(t *testing.T) {
	at := storetest.Database(t)
	s := on(t, at)
	ada := painter(t, s, "Ada")
	sitting, err := s.BeginSitting(ctx, ada.ID, store.Sitting{Name: "Low water"})
	require.NoError(t, err)
	listening, end := context.WithCancel(t.Context())
	begun, heard, over := make(chan bool, 8), make(chan store.Done, 8), make(chan bool)
	go func() {
		s.Listen(listening, func() { begun <- true }, func(d store.Done) { heard <- d })
		close(over)
	}()
	soon := func() <-chan time.Time { return time.After(20 * time.Second) }
	wait := func() {
		t.Helper()
		select {
		case <-begun:
		case <-soon():
			require.Fail(t, "no line")
		}
	}
	hears := func() {
		t.Helper()
		require.NoError(t, s.SayNextTime(ctx, ada.ID, sitting.ID, "", ""))
		select {
		case d := <-heard:
			assert.Equal(t, store.Done{Painter: ada.ID, Sitting: sitting.ID}, d)
		case <-soon():
			require.Fail(t, "nothing was heard")
		}
	}
	wait()
	hears()
	// A line that is cut is laid again.
	db, err := sql.Open("pgx", at)
	require.NoError(t, err)
	defer db.Close()
	var cut int
	require.NoError(t, db.QueryRowContext(ctx, "select count(pg_terminate_backend(pid)) from pg_stat_activity where query like 'listen %' and datname = current_database()").Scan(&cut))
	require.Equal(t, 1, cut)
	wait()
	hears()
	// What came to nothing is told to nobody.
	assert.ErrorIs(t, s.SayNextTime(ctx, ada.ID+1, sitting.ID, "", "no"), store.ErrNotFound)
	select {
	case d := <-heard:
		assert.Fail(t, "heard", "%v", d)
	default:
	}
	end()
	<-over
}
