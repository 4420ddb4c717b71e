package store_test

import (
	"fmt"
	"sync"
	"sync/atomic"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/store"
)

// Whatever is tried, through whichever store on the database and however many at once, no more is allowed than may be.
func TestAttemptsAreCountedTogether(t *testing.T) {
	s := fresh(t)
	hourly := store.Rate{Every: time.Hour, Burst: 5}
	var allowed atomic.Int64
	var all sync.WaitGroup
	for range 20 {
		all.Go(func() {
			ok, err := s.Try(ctx, "ada", hourly)
			assert.NoError(t, err)
			if ok {
				allowed.Add(1)
			}
		})
	}
	all.Wait()
	assert.EqualValues(t, 5, allowed.Load())
	spent, err := s.Spent(ctx, "ada", hourly)
	require.NoError(t, err)
	assert.True(t, spent)
	spent, err = s.Spent(ctx, "eve", hourly)
	require.NoError(t, err)
	assert.False(t, spent, "another has a count of her own")
	quick := store.Rate{Every: time.Millisecond, Burst: 1}
	for n := range 30 {
		ok, err := s.Try(ctx, fmt.Sprint("passer-by ", n), quick)
		require.NoError(t, err)
		assert.True(t, ok)
	}
	require.Eventually(t, func() bool {
		ok, err := s.Try(ctx, "passer-by 0", quick)
		return err == nil && ok
	}, 5*time.Second, 2*time.Millisecond, "what was paid back may be tried again")
}
