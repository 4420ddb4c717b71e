package api

import (
	"context"
	"errors"
	"net/http"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"gyrophane/core/bias"
	"gyrophane/core/colour"
	"gyrophane/core/journal"
	"gyrophane/store"
	"gyrophane/studio"
	"gyrophane/wire"
)

// Guessed is what was said of a pairing beside what became of it.
type Guessed struct {
	A    string    `json:"a" doc:"paint"`
	B    string    `json:"b"`
	Key  string    `json:"key" doc:"tells the two paints as they stood, and the spacing, from all others"`
	Made time.Time `json:"made"`
	wire.Expected
	wire.PairOutcome
}

// PairGuess is what is said of a pairing.
type PairGuess struct {
	A string `json:"a" minLength:"1" maxLength:"60" doc:"paint"`
	B string `json:"b" minLength:"1" maxLength:"60"`
	wire.Expected
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
	Guesses  []Guessed            `json:"guesses" doc:"outside of practice, the newest first"`
	Sections []wire.SectionRecord `json:"sections" doc:"of all guesses"`
	Rounds   []RoundScore         `json:"rounds" doc:"of practice, the newest 60, the newest first"`
	Missed   []Guessed            `json:"missed" doc:"of the last round of practice, where something was not right, in its order"`
	Each     int                  `json:"each" doc:"the points of a guess that is right in everything"`
	Hues     []string             `json:"hues" doc:"the words to choose from"`
}

// Round is a round of practice.
type Round struct {
	ID      int64               `json:"id"`
	Made    time.Time           `json:"made"`
	Spacing string              `json:"spacing" format:"spacing"`
	Pairs   []wire.PracticePair `json:"pairs"`
	Points  int                 `json:"points"`
	OutOf   int                 `json:"outOf" doc:"of what was guessed"`
	Each    int                 `json:"each"`
}

// Practice is the round that is under way, if any.
type Practice struct {
	Round *Round `json:"round,omitempty" doc:"absent when none is under way"`
}

func (s *Server) guesses(ctx context.Context, _ *struct{}) (*struct{ Body Guesses }, error) {
	out := Guesses{Guesses: []Guessed{}, Sections: []wire.SectionRecord{}, Rounds: []RoundScore{}, Missed: []Guessed{}, Each: journal.MaxGuessPoints, Hues: colour.HueWords()}
	kept, err := s.store.Guesses(ctx, painter(ctx).ID)
	if err != nil {
		return nil, err
	}
	for _, g := range kept {
		out.Guesses = append(out.Guesses, guessedOf(g))
	}
	scores, err := s.store.SectionScores(ctx, painter(ctx).ID)
	if err != nil {
		return nil, err
	}
	for _, r := range scores {
		out.Sections = append(out.Sections, wire.SectionRecord{Section: r.Section, Guesses: r.Guesses, Points: r.Points, OutOf: r.OutOf, HuesRight: r.HueRight, VerdictsRight: r.VerdictRight, MudRight: r.MudRight})
	}
	rounds, err := s.store.RoundScores(ctx, painter(ctx).ID)
	for _, r := range rounds {
		out.Rounds = append(out.Rounds, RoundScore{ID: r.ID, Made: r.CreatedAt, Guesses: r.Guesses, Length: r.Length, Points: r.Points, OutOf: r.OutOf})
	}
	if err != nil || len(rounds) == 0 {
		return &struct{ Body Guesses }{out}, err
	}
	_, last, err := s.store.Round(ctx, painter(ctx).ID, rounds[0].ID)
	for _, g := range last {
		if !g.Outcome.Right() {
			out.Missed = append(out.Missed, guessedOf(g))
		}
	}
	return &struct{ Body Guesses }{out}, err
}

func guessedOf(g store.PairGuess) Guessed {
	return Guessed{A: g.A, B: g.B, Key: g.Key, Made: g.CreatedAt, Expected: wire.ExpectedOf(g.Said), PairOutcome: wire.PairOutcomeOf(g.Outcome)}
}

// shown answers with a round: what was answered with its outcome, the rest
// covered; with none where there is none.
func (s *Server) shown(ctx context.Context, v wire.View, r studio.Round, err error) (*struct{ Body Practice }, error) {
	if errors.Is(err, errNoRound) {
		return &struct{ Body Practice }{}, nil
	}
	if err != nil {
		return nil, err
	}
	school := bias.School(painter(ctx).WarmBlue)
	out := &Round{ID: r.ID, Made: r.CreatedAt, Spacing: r.Spacing.String(), Each: journal.MaxGuessPoints}
	for _, p := range r.Pairs {
		if p.Guess == nil {
			out.Pairs = append(out.Pairs, v.CoveredPair(p.A, p.B, school))
			continue
		}
		out.Pairs = append(out.Pairs, v.GuessedPair(p.A, p.B, school, r.Spacing, p.Guess.Said, p.Guess.Outcome))
		out.Points += p.Guess.Points
		out.OutOf += p.Guess.OutOf
	}
	return &struct{ Body Practice }{Practice{out}}, nil
}

// errNoRound says that no round is under way.
var errNoRound = errors.New("no round")

// openRound is the round that is under way.
func (s *Server) openRound(ctx context.Context) (studio.Round, error) {
	r, err := s.studio.OpenRound(ctx, painter(ctx))
	if errors.Is(err, store.ErrNotFound) {
		err = errNoRound
	}
	return r, err
}

type guessInput struct {
	Spaced
	Wheel int64       `query:"wheel" doc:"a kept wheel whose tubes are taken as they were kept with it"`
	Body  []PairGuess `minItems:"1" maxItems:"60"`
}

func (s *Server) guess(ctx context.Context, in *guessInput) (*struct{ Body Guesses }, error) {
	spacing, err := studio.ParseSpacing(in.Spacing)
	if err != nil {
		return nil, err
	}
	var guesses []studio.PairGuess
	for _, g := range in.Body {
		guesses = append(guesses, studio.PairGuess{A: g.A, B: g.B, Expected: g.Core()})
	}
	if err := s.studio.Guess(ctx, painter(ctx), in.Wheel, spacing, guesses); err != nil {
		return nil, err
	}
	return s.guesses(ctx, nil)
}

func (s *Server) practice(ctx context.Context, in *Look) (*struct{ Body Practice }, error) {
	v, err := in.view()
	if err != nil {
		return nil, err
	}
	r, err := s.openRound(ctx)
	return s.shown(ctx, v, r, err)
}

type beginPracticeInput struct {
	Look
	Spaced
}

func (s *Server) beginPractice(ctx context.Context, in *beginPracticeInput) (*struct{ Body Practice }, error) {
	v, err := in.view()
	if err != nil {
		return nil, err
	}
	spacing, err := studio.ParseSpacing(in.Spacing)
	if err != nil {
		return nil, err
	}
	r, err := s.studio.BeginRound(ctx, painter(ctx), spacing)
	return s.shown(ctx, v, r, err)
}

type answerPracticeInput struct {
	ID int64 `path:"id" doc:"which one"`
	Look
	Body struct {
		Place int `json:"place" minimum:"0" maximum:"9" doc:"of the pairing in the round"`
		wire.Expected
	}
}

func (s *Server) answerPractice(ctx context.Context, in *answerPracticeInput) (*struct{ Body Practice }, error) {
	v, err := in.view()
	if err != nil {
		return nil, err
	}
	r, err := s.studio.Answer(ctx, painter(ctx), in.ID, in.Body.Place, in.Body.Core())
	return s.shown(ctx, v, r, err)
}

func (s *Server) endPractice(ctx context.Context, in *ThingID) (*struct{}, error) {
	return nil, s.store.EndRound(ctx, painter(ctx).ID, in.ID)
}

func (s *Server) guessRoutes() {
	register(s, huma.Operation{OperationID: "guesses", Tags: []string{"practice"}, Summary: "What was said of pairings, and how it came out", Method: http.MethodGet, Path: "/api/guesses"}, s.guesses)
	register(s, huma.Operation{OperationID: "guess", Tags: []string{"practice"}, Summary: "Keeps guesses at pairings, scored, all or none", Method: http.MethodPost, Path: "/api/guesses"}, s.guess)
	register(s, huma.Operation{OperationID: "practice", Tags: []string{"practice"}, Summary: "The round of practice that is under way", Method: http.MethodGet, Path: "/api/practice"}, s.practice)
	register(s, huma.Operation{OperationID: "beginPractice", Tags: []string{"practice"}, Summary: "Begins a round of practice, or goes on with the one under way", Method: http.MethodPost, Path: "/api/practice"}, s.beginPractice)
	register(s, huma.Operation{OperationID: "answerPractice", Tags: []string{"practice"}, Summary: "Answers one pairing of a round", Method: http.MethodPost, Path: "/api/practice/{id}/answers"}, s.answerPractice)
	register(s, huma.Operation{OperationID: "endPractice", Tags: []string{"practice"}, Summary: "Puts a round away", Method: http.MethodDelete, Path: "/api/practice/{id}", DefaultStatus: http.StatusNoContent}, s.endPractice)
}
