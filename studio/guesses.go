package studio

import (
	"context"
	"math/rand/v2"

	"gyrophane/core/certainty"
	"gyrophane/core/input"
	"gyrophane/core/journal"
	"gyrophane/core/paint"
	"gyrophane/core/path"
	"gyrophane/store"
)

// PairGuess is what is expected of a pairing of two paints, by their ids.
type PairGuess struct {
	A, B string
	journal.Expected
}

// score is a guess with what becomes of it, as it is kept.
func score(find paint.Finder, g PairGuess, spacing path.Spacing, doubts certainty.Doubts) (out store.PairGuess, err error) {
	a, err := find(g.A)
	if err != nil {
		return out, err
	}
	b, err := find(g.B)
	if err != nil {
		return out, err
	}
	outcome, key, err := journal.ScorePair(a, b, spacing, g.Expected, doubts)
	if err != nil {
		return out, err
	}
	return store.PairGuess{A: a.ID, B: b.ID, Key: key, Section: outcome.Section, Said: g.Expected, Outcome: outcome, Points: outcome.Points, OutOf: journal.MaxGuessPoints}, nil
}

// Guess keeps guesses at pairings with what becomes of them, all or none; tubes as
// they were kept with a wheel, where it is not 0.
func (s *Studio) Guess(ctx context.Context, painter store.Painter, wheelID int64, spacing path.Spacing, guesses []PairGuess) error {
	var ids []string
	for _, g := range guesses {
		ids = append(ids, g.A, g.B)
	}
	find, err := s.Finder(ctx, As(painter), wheelID, mentionTubes(ids))
	if err != nil {
		return err
	}
	doubts, err := s.Doubts(ctx, As(painter))
	if err != nil {
		return err
	}
	var rows []store.PairGuess
	for _, g := range guesses {
		row, err := score(find, g, spacing, doubts)
		if err != nil {
			return err
		}
		rows = append(rows, row)
	}
	return s.store.AddGuesses(ctx, painter.ID, rows)
}

// Round is a round of practice, and what was guessed in it.
type Round struct {
	store.Round
	Spacing path.Spacing
	Pairs   []RoundPair
}

// RoundPair is one pairing of a round; Guess is nil before it was guessed.
type RoundPair struct {
	A, B  *paint.Paint
	Guess *store.PairGuess
}

// round finds the paints of a round.
func (s *Studio) round(ctx context.Context, painter store.Painter, r store.Round, guesses []store.PairGuess) (Round, error) {
	spacing, err := path.ParseSpacing(r.Spacing)
	if err != nil {
		return Round{}, err
	}
	find := s.finder(ctx, As(painter), nil, nil)
	out := Round{Round: r, Spacing: spacing}
	for place, c := range r.Pairs {
		var pair RoundPair
		if pair.A, err = find(c.A); err != nil {
			return Round{}, err
		}
		if pair.B, err = find(c.B); err != nil {
			return Round{}, err
		}
		for i := range guesses {
			if guesses[i].Place == place {
				pair.Guess = &guesses[i]
			}
		}
		out.Pairs = append(out.Pairs, pair)
	}
	return out, nil
}

// OpenRound is the round that is under way; store.ErrNotFound when there is none.
func (s *Studio) OpenRound(ctx context.Context, painter store.Painter) (Round, error) {
	r, guesses, err := s.store.OpenRound(ctx, painter.ID)
	if err != nil {
		return Round{}, err
	}
	return s.round(ctx, painter, r, guesses)
}

// BeginRound draws a round from the painter's box, or goes on with the one that is
// under way.
func (s *Studio) BeginRound(ctx context.Context, painter store.Painter, spacing path.Spacing) (Round, error) {
	box, err := s.Box(ctx, painter.ID)
	if err != nil {
		return Round{}, err
	}
	scores, err := s.store.SectionScores(ctx, painter.ID)
	if err != nil {
		return Round{}, err
	}
	past := map[string]journal.Record{}
	for _, r := range scores {
		past[r.Section] = journal.Record{Points: r.Points, OutOf: r.OutOf}
	}
	drawn, err := journal.Practice(box.Paints(), past, rand.New(rand.NewPCG(rand.Uint64(), rand.Uint64())))
	if err != nil {
		return Round{}, input.Wrap(err)
	}
	r := store.Round{Length: len(drawn), Spacing: spacing.String()}
	for _, c := range drawn {
		r.Pairs = append(r.Pairs, store.Couple{A: c.A.ID, B: c.B.ID})
	}
	if _, err := s.store.BeginRound(ctx, painter.ID, r); err != nil {
		return Round{}, err
	}
	return s.OpenRound(ctx, painter)
}

// Answer keeps what is expected of the pairing at a place of a round.
func (s *Studio) Answer(ctx context.Context, painter store.Painter, round int64, place int, e journal.Expected) (Round, error) {
	r, _, err := s.store.Round(ctx, painter.ID, round)
	if err != nil {
		return Round{}, err
	}
	if place >= len(r.Pairs) {
		return Round{}, input.Errorf("this round has %d pairings: there is no place %d in it", len(r.Pairs), place)
	}
	spacing, err := path.ParseSpacing(r.Spacing)
	if err != nil {
		return Round{}, err
	}
	doubts, err := s.Doubts(ctx, As(painter))
	if err != nil {
		return Round{}, err
	}
	row, err := score(s.finder(ctx, As(painter), nil, nil), PairGuess{r.Pairs[place].A, r.Pairs[place].B, e}, spacing, doubts)
	if err != nil {
		return Round{}, err
	}
	row.Place = place
	if err := s.store.AddAnswer(ctx, painter.ID, r.ID, row); err != nil {
		return Round{}, err
	}
	now, guesses, err := s.store.Round(ctx, painter.ID, r.ID)
	if err != nil {
		return Round{}, err
	}
	return s.round(ctx, painter, now, guesses)
}
