package store_test

import (
	"sync"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/journal"
	"gyrophane/store"
)

func guessOf(key, section string, points int) store.PairGuess {
	return store.PairGuess{A: "PB29", B: "PR122", Key: key, Section: section, Outcome: journal.PairOutcome{HueRight: true}, Points: points, OutOf: 6}
}

func TestAGuessIsKeptOnceAndAddedUp(t *testing.T) {
	s := fresh(t)
	ada, eve := painter(t, s, "Ada"), painter(t, s, "Eve")
	require.NoError(t, s.AddGuesses(ctx, ada.ID, []store.PairGuess{guessOf("one", "violet", 6), guessOf("two", "green", 2)}))
	err := s.AddGuesses(ctx, ada.ID, []store.PairGuess{guessOf("three", "green", 6), guessOf("one", "violet", 0)})
	require.ErrorAs(t, err, new(store.Refusal))
	require.NoError(t, s.AddGuesses(ctx, eve.ID, []store.PairGuess{guessOf("one", "violet", 1)}), "another painter's eye")
	kept, err := s.Guesses(ctx, ada.ID)
	require.NoError(t, err)
	require.Len(t, kept, 2, "none of the refused ones")
	assert.Equal(t, "two", kept[0].Key, "the newest first")
	scores, err := s.SectionScores(ctx, ada.ID)
	require.NoError(t, err)
	assert.Equal(t, []store.SectionScore{{"green", 1, 2, 6, 1, 0, 0}, {"violet", 1, 6, 6, 1, 0, 0}}, scores)
}

func TestOneRoundAtATimeAndOneAnswerToEachPlace(t *testing.T) {
	s := fresh(t)
	ada, eve := painter(t, s, "Ada"), painter(t, s, "Eve")
	_, _, err := s.OpenRound(ctx, ada.ID)
	require.ErrorIs(t, err, store.ErrNotFound)

	rounds := make([]store.Round, 4)
	var wg sync.WaitGroup
	for i := range rounds {
		wg.Go(func() {
			r, err := s.BeginRound(ctx, ada.ID, store.Round{Pairs: []store.Couple{}, Length: 2, Spacing: "hue"})
			assert.NoError(t, err)
			rounds[i] = r
		})
	}
	wg.Wait()
	for _, r := range rounds {
		assert.Equal(t, rounds[0].ID, r.ID, "begun in several tabs at once, it is one")
	}
	id := rounds[0].ID
	answer := func(place, points int) error {
		g := guessOf("one", "violet", points)
		g.Place = place
		return s.AddAnswer(ctx, ada.ID, id, g)
	}
	require.NoError(t, answer(0, 4))
	require.ErrorAs(t, answer(0, 6), new(store.Refusal), "an answer stays as it is")
	require.ErrorIs(t, s.AddAnswer(ctx, eve.ID, id, guessOf("one", "violet", 6)), store.ErrNotFound, "another's round")
	open, guesses, err := s.OpenRound(ctx, ada.ID)
	require.NoError(t, err)
	assert.Equal(t, id, open.ID)
	assert.Len(t, guesses, 1)

	require.NoError(t, answer(1, 2))
	_, _, err = s.OpenRound(ctx, ada.ID)
	require.ErrorIs(t, err, store.ErrNotFound, "it has come to its end")
	scores, err := s.RoundScores(ctx, ada.ID)
	require.NoError(t, err)
	require.Len(t, scores, 1)
	assert.Equal(t, [4]int{2, 2, 6, 12}, [4]int{scores[0].Guesses, scores[0].Length, scores[0].Points, scores[0].OutOf})

	next, err := s.BeginRound(ctx, ada.ID, store.Round{Pairs: []store.Couple{}, Length: 2, Spacing: "hue"})
	require.NoError(t, err)
	assert.NotEqual(t, id, next.ID)
	require.ErrorIs(t, s.EndRound(ctx, eve.ID, next.ID), store.ErrNotFound)
	require.NoError(t, s.EndRound(ctx, ada.ID, next.ID))
	_, _, err = s.OpenRound(ctx, ada.ID)
	require.ErrorIs(t, err, store.ErrNotFound)
}

func TestTheDemoStudioHasPractisedOnce(t *testing.T) {
	s := fresh(t)
	g := guessOf("one", "violet", 5)
	rounds := []store.DemoRound{{DaysAgo: 9, Round: store.Round{Pairs: []store.Couple{}, Length: 1, Spacing: "hue"}, Guesses: []store.PairGuess{g}}}
	for range 2 {
		require.NoError(t, s.SeedDemo(ctx, store.Demo{Rounds: rounds}))
	}
	all, err := s.Painters(ctx)
	require.NoError(t, err)
	scores, err := s.RoundScores(ctx, all[0].ID)
	require.NoError(t, err)
	require.Len(t, scores, 1)
	assert.WithinDuration(t, time.Now().AddDate(0, 0, -9), scores[0].CreatedAt, time.Hour)
	assert.Equal(t, 5, scores[0].Points)
}

func TestOfManyTabsGuessingOnePairExactlyOneIsKept(t *testing.T) {
	s := fresh(t)
	ada := painter(t, s, "Ada")
	errs := make([]error, 6)
	var wg sync.WaitGroup
	for i := range errs {
		wg.Go(func() { errs[i] = s.AddGuesses(ctx, ada.ID, []store.PairGuess{guessOf("one", "violet", i)}) })
	}
	wg.Wait()
	kept := 0
	for _, err := range errs {
		if err == nil {
			kept++
		} else {
			assert.ErrorAs(t, err, new(store.Refusal))
		}
	}
	assert.Equal(t, 1, kept)
	guesses, err := s.Guesses(ctx, ada.ID)
	require.NoError(t, err)
	assert.Len(t, guesses, 1)
}

func TestPracticeIsNotListedAmongWhatWasSaidUnderCovers(t *testing.T) {
	s := fresh(t)
	ada := painter(t, s, "Ada")
	r, err := s.BeginRound(ctx, ada.ID, store.Round{Pairs: []store.Couple{}, Length: 3, Spacing: "hue"})
	require.NoError(t, err)
	for place := range 3 {
		g := guessOf("one", "violet", 6)
		g.Place = place
		require.NoError(t, s.AddAnswer(ctx, ada.ID, r.ID, g), "practice asks about the same pairing again")
	}
	require.NoError(t, s.AddGuesses(ctx, ada.ID, []store.PairGuess{guessOf("one", "violet", 0)}), "and it may still be said under its cover")
	listed, err := s.Guesses(ctx, ada.ID)
	require.NoError(t, err)
	require.Len(t, listed, 1)
	assert.Nil(t, listed[0].RoundID)
	scores, err := s.SectionScores(ctx, ada.ID)
	require.NoError(t, err)
	assert.Equal(t, 4, scores[0].Guesses, "both count for the eye")
	_, guesses, err := s.Round(ctx, ada.ID, r.ID)
	require.NoError(t, err)
	assert.Len(t, guesses, 3)
	_, _, err = s.Round(ctx, ada.ID, r.ID+1)
	assert.ErrorIs(t, err, store.ErrNotFound)
	assert.Error(t, s.AddGuesses(ctx, ada.ID, []store.PairGuess{guessOf("two", "violet", 7)}), "no more points than there are")
}
