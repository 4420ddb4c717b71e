package api

import (
	"context"
	"encoding/json"
	"errors"
	"math/rand/v2"
	"net/http"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"gyrophane/core/colour"
	"gyrophane/core/journal"
	"gyrophane/core/paint"
	"gyrophane/core/path"
	"gyrophane/exchange"
	"gyrophane/store"
)

// Guessed is what was said of a pairing beside what became of it.
type Guessed struct {
	A    string    `json:"a" doc:"paint"`
	B    string    `json:"b"`
	Key  string    `json:"key" doc:"tells the two paints as they stood, and the spacing, from all others"`
	Made time.Time `json:"made"`
	exchange.Expected
	exchange.PairOutcome
}

// PairGuess is what is said of a pairing.
type PairGuess struct {
	A string `json:"a" minLength:"1" maxLength:"60" doc:"paint"`
	B string `json:"b" minLength:"1" maxLength:"60"`
	exchange.Expected
}

// RoundScore is how a round of practice came out.
type RoundScore struct {
	ID      int64     `json:"id"`
	Made    time.Time `json:"made"`
	Guesses int       `json:"guesses"`
	Length  int       `json:"length"`
	Points  int       `json:"points"`
	OutOf   int       `json:"outOf"`
}

// Guesses are what a painter said of pairings, and how that came out.
type Guesses struct {
	Guesses  []Guessed                `json:"guesses" doc:"outside of practice, the newest first"`
	Sections []exchange.SectionRecord `json:"sections" doc:"of all guesses"`
	Rounds   []RoundScore             `json:"rounds" doc:"of practice, the newest 60, the newest first"`
	Each     int                      `json:"each" doc:"the points of a guess that is right in everything"`
	Hues     []string                 `json:"hues" doc:"the words to choose from"`
}

// Round is a round of practice.
type Round struct {
	ID      int64                   `json:"id"`
	Made    time.Time               `json:"made"`
	Spacing string                  `json:"spacing" enum:"hue,contrast,parts"`
	Pairs   []exchange.PracticePair `json:"pairs"`
	Points  int                     `json:"points"`
	OutOf   int                     `json:"outOf" doc:"of what was guessed"`
	Each    int                     `json:"each"`
}

// Practice is the round that is under way, if any.
type Practice struct {
	Round *Round `json:"round,omitempty" doc:"absent when none is under way"`
}

// couple is how a round keeps its pairings.
type couple struct {
	A string `json:"a"`
	B string `json:"b"`
}

func (c couple) paints(find exchange.Finder) (a, b *paint.Paint, err error) {
	if a, err = find(c.A); err != nil {
		return nil, nil, err
	}
	b, err = find(c.B)
	return a, b, err
}

func (s *Server) records(ctx context.Context) (out []exchange.SectionRecord, err error) {
	scores, err := s.store.SectionScores(ctx, painter(ctx).ID)
	for _, r := range scores {
		out = append(out, exchange.SectionRecord{Section: r.Section, Guesses: r.Guesses, Points: r.Points, OutOf: r.OutOf, HuesRight: r.HueRight, VerdictsRight: r.VerdictRight, MudRight: r.MudRight})
	}
	return out, err
}

func (s *Server) guesses(ctx context.Context) (*struct{ Body Guesses }, error) {
	out := Guesses{Guesses: []Guessed{}, Sections: []exchange.SectionRecord{}, Rounds: []RoundScore{}, Each: exchange.MostOfGuess, Hues: colour.HueWords()}
	kept, err := s.store.Guesses(ctx, painter(ctx).ID)
	if err != nil {
		return nil, s.refusal(err)
	}
	for _, g := range kept {
		one := Guessed{A: g.A, B: g.B, Key: g.Key, Made: g.CreatedAt}
		if err := errors.Join(json.Unmarshal(g.Said, &one.Expected), json.Unmarshal(g.Outcome, &one.PairOutcome)); err != nil {
			return nil, s.refusal(err)
		}
		out.Guesses = append(out.Guesses, one)
	}
	records, err := s.records(ctx)
	if err != nil {
		return nil, s.refusal(err)
	}
	out.Sections = append(out.Sections, records...)
	rounds, err := s.store.RoundScores(ctx, painter(ctx).ID)
	for _, r := range rounds {
		out.Rounds = append(out.Rounds, RoundScore{r.ID, r.CreatedAt, r.Guesses, r.Length, r.Points, r.OutOf})
	}
	return &struct{ Body Guesses }{out}, s.refusal(err)
}

// guessed scores a guess, as it is kept.
func guessed(find exchange.Finder, a, b string, spacing path.Spacing, said exchange.Expected) (g store.PairGuess, err error) {
	first, second, err := couple{a, b}.paints(find)
	if err != nil {
		return g, err
	}
	if first.ID == second.ID {
		return g, exchange.Bad("%s cannot be paired with itself", first.ID)
	}
	outcome, key, err := exchange.ScorePair(first, second, spacing, said)
	if err != nil {
		return g, err
	}
	g = store.PairGuess{A: first.ID, B: second.ID, Key: key, Section: outcome.Section, Points: outcome.Points, OutOf: exchange.MostOfGuess}
	if g.Said, err = json.Marshal(said); err != nil {
		return g, err
	}
	g.Outcome, err = json.Marshal(outcome)
	return g, err
}

// DemoRounds are the rounds of practice of the made-up demo studio, scored.
func DemoRounds() ([]store.DemoRound, error) {
	said, err := exchange.DemoGuesses()
	if err != nil {
		return nil, err
	}
	var out []store.DemoRound
	var pairs []couple
	for i, d := range said {
		if i == 0 || d.DaysAgo != said[i-1].DaysAgo {
			out, pairs = append(out, store.DemoRound{DaysAgo: d.DaysAgo, Round: store.Round{Spacing: path.ByHue.String()}}), nil
		}
		round := &out[len(out)-1]
		g, err := guessed(exchange.FindPaint, d.A, d.B, path.ByHue, d.Said)
		if err != nil {
			return nil, err
		}
		g.Place = len(round.Guesses)
		round.Guesses, pairs = append(round.Guesses, g), append(pairs, couple{g.A, g.B})
		round.Length = len(pairs)
		if round.Pairs, err = json.Marshal(pairs); err != nil {
			return nil, err
		}
	}
	return out, nil
}

// round shows a round: what was answered with its outcome, the rest covered.
func (s *Server) round(ctx context.Context, v exchange.View, r store.Round, guesses []store.PairGuess) (*Round, error) {
	var pairs []couple
	if err := json.Unmarshal(r.Pairs, &pairs); err != nil {
		return nil, err
	}
	spacing, err := path.ParseSpacing(r.Spacing)
	if err != nil {
		return nil, err
	}
	find, school := s.finder(ctx, nil, nil), s.school(ctx)
	out := &Round{ID: r.ID, Made: r.CreatedAt, Spacing: r.Spacing, Each: exchange.MostOfGuess}
	for _, p := range pairs {
		a, b, err := p.paints(find)
		if err != nil {
			return nil, err
		}
		out.Pairs = append(out.Pairs, v.Asked(a, b, school))
		for _, g := range guesses {
			if g.Place != len(out.Pairs)-1 {
				continue
			}
			var said exchange.Expected
			var outcome exchange.PairOutcome
			if err := errors.Join(json.Unmarshal(g.Said, &said), json.Unmarshal(g.Outcome, &outcome)); err != nil {
				return nil, err
			}
			out.Pairs[g.Place] = v.Lifted(a, b, school, spacing, said, outcome)
			out.Points += g.Points
			out.OutOf += g.OutOf
		}
	}
	return out, nil
}

// begun begins a round from the painter's box.
func (s *Server) begun(ctx context.Context, spacing path.Spacing) (store.Round, error) {
	paints, err := s.boxPaints(ctx)
	if err != nil {
		return store.Round{}, err
	}
	records, err := s.records(ctx)
	if err != nil {
		return store.Round{}, err
	}
	past := map[string]journal.Record{}
	for _, r := range records {
		past[r.Section] = journal.Record{Points: r.Points, OutOf: r.OutOf}
	}
	drawn, err := journal.Practice(paints, past, rand.New(rand.NewPCG(rand.Uint64(), rand.Uint64())))
	if err != nil {
		return store.Round{}, exchange.Bad("%w", err)
	}
	var pairs []couple
	for _, c := range drawn {
		pairs = append(pairs, couple{c.A.ID, c.B.ID})
	}
	r := store.Round{Length: len(pairs), Spacing: spacing.String()}
	if r.Pairs, err = json.Marshal(pairs); err != nil {
		return store.Round{}, err
	}
	return s.store.BeginRound(ctx, painter(ctx).ID, r)
}

// underWay answers with the round that is under way.
func (s *Server) underWay(ctx context.Context, v exchange.View) (*struct{ Body Practice }, error) {
	r, guesses, err := s.store.OpenRound(ctx, painter(ctx).ID)
	if errors.Is(err, store.ErrNotFound) {
		return &struct{ Body Practice }{}, nil
	}
	return s.shown(ctx, v, r, guesses, err)
}

func (s *Server) shown(ctx context.Context, v exchange.View, r store.Round, guesses []store.PairGuess, err error) (*struct{ Body Practice }, error) {
	if err != nil {
		return nil, s.refusal(err)
	}
	round, err := s.round(ctx, v, r, guesses)
	return &struct{ Body Practice }{Practice{round}}, s.refusal(err)
}

func (s *Server) guessRoutes() {
	huma.Register(s.api, huma.Operation{OperationID: "guesses", Tags: []string{"practice"}, Summary: "What was said of pairings, and how it came out", Method: http.MethodGet, Path: "/api/guesses"},
		func(ctx context.Context, _ *struct{}) (*struct{ Body Guesses }, error) { return s.guesses(ctx) })

	type guess struct {
		Spaced
		Wheel int64       `query:"wheel" doc:"a kept wheel whose tubes are taken as they were kept with it"`
		Body  []PairGuess `minItems:"1" maxItems:"60"`
	}
	huma.Register(s.api, huma.Operation{OperationID: "guess", Tags: []string{"practice"}, Summary: "Keeps guesses at pairings, scored, all or none", Method: http.MethodPost, Path: "/api/guesses"},
		func(ctx context.Context, in *guess) (*struct{ Body Guesses }, error) {
			spacing, err := path.ParseSpacing(in.Spacing)
			if err != nil {
				return nil, s.refusal(exchange.Bad("%w", err))
			}
			var refs []string
			for _, g := range in.Body {
				refs = append(refs, g.A, g.B)
			}
			find, err := s.systemFinder(ctx, in.Wheel, exchange.SystemContent{Roles: [3][]string{refs}})
			if err != nil {
				return nil, s.refusal(err)
			}
			var rows []store.PairGuess
			for _, g := range in.Body {
				row, err := guessed(find, g.A, g.B, spacing, g.Expected)
				if err != nil {
					return nil, s.refusal(err)
				}
				rows = append(rows, row)
			}
			if err := s.store.Guess(ctx, painter(ctx).ID, rows); err != nil {
				return nil, s.refusal(err)
			}
			return s.guesses(ctx)
		})

	huma.Register(s.api, huma.Operation{OperationID: "practice", Tags: []string{"practice"}, Summary: "The round of practice that is under way", Method: http.MethodGet, Path: "/api/practice"},
		func(ctx context.Context, in *Look) (*struct{ Body Practice }, error) {
			v, err := in.view()
			if err != nil {
				return nil, s.refusal(err)
			}
			return s.underWay(ctx, v)
		})

	type begin struct {
		Look
		Spaced
	}
	huma.Register(s.api, huma.Operation{OperationID: "beginPractice", Tags: []string{"practice"}, Summary: "Begins a round of practice, or goes on with the one under way", Method: http.MethodPost, Path: "/api/practice"},
		func(ctx context.Context, in *begin) (*struct{ Body Practice }, error) {
			v, spacing, err := exchange.ParseLook(in.Medium, in.Light, in.Judged, in.Spacing)
			if err != nil {
				return nil, s.refusal(err)
			}
			if _, err := s.begun(ctx, spacing); err != nil {
				return nil, s.refusal(err)
			}
			return s.underWay(ctx, v)
		})

	type answer struct {
		ID int64 `path:"id" doc:"which one"`
		Look
		Body struct {
			Place int `json:"place" minimum:"0" maximum:"9" doc:"of the pairing in the round"`
			exchange.Expected
		}
	}
	huma.Register(s.api, huma.Operation{OperationID: "answerPractice", Tags: []string{"practice"}, Summary: "Answers one pairing of a round", Method: http.MethodPost, Path: "/api/practice/{id}/answers"},
		func(ctx context.Context, in *answer) (*struct{ Body Practice }, error) {
			v, err := in.view()
			if err != nil {
				return nil, s.refusal(err)
			}
			r, _, err := s.store.Round(ctx, painter(ctx).ID, in.ID)
			if err != nil {
				return nil, s.refusal(err)
			}
			var pairs []couple
			if err := json.Unmarshal(r.Pairs, &pairs); err != nil {
				return nil, s.refusal(err)
			}
			if in.Body.Place >= len(pairs) {
				return nil, s.refusal(exchange.Bad("this round has %d pairings: there is no place %d in it", len(pairs), in.Body.Place))
			}
			spacing, err := path.ParseSpacing(r.Spacing)
			if err != nil {
				return nil, s.refusal(err)
			}
			row, err := guessed(s.finder(ctx, nil, nil), pairs[in.Body.Place].A, pairs[in.Body.Place].B, spacing, in.Body.Expected)
			if err != nil {
				return nil, s.refusal(err)
			}
			row.Place = in.Body.Place
			if err := s.store.Answer(ctx, painter(ctx).ID, r.ID, row); err != nil {
				return nil, s.refusal(err)
			}
			now, guesses, err := s.store.Round(ctx, painter(ctx).ID, r.ID)
			return s.shown(ctx, v, now, guesses, err)
		})

	huma.Register(s.api, huma.Operation{OperationID: "endPractice", Tags: []string{"practice"}, Summary: "Puts a round away", Method: http.MethodDelete, Path: "/api/practice/{id}", DefaultStatus: http.StatusNoContent},
		func(ctx context.Context, in *struct {
			ID int64 `path:"id" doc:"which one"`
		}) (*struct{}, error) {
			return nil, s.refusal(s.store.EndRound(ctx, painter(ctx).ID, in.ID))
		})
}
