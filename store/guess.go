package store

import (
	"context"
	"errors"
	"maps"
	"slices"
	"time"

	"gorm.io/gorm"

	"gyrophane/core/journal"
)

// PairGuess is what a painter expected of a pairing before it was shown, and
// what became of it. It is never changed.
type PairGuess struct {
	ID        int64
	UID       string `gorm:"default:gen_random_uuid()"` // by which it is known again wherever it is carried
	PainterID int64
	A, B      string // paints by reference
	Key       string // tells the two as they stood from all others; guessed once outside of practice
	Section   string
	RoundID   *int64              // of practice
	Place     int                 // in the round
	Said      journal.Expected    `gorm:"serializer:expected"`
	Outcome   journal.PairOutcome `gorm:"serializer:pair_outcome"` // as computed that day
	Points    int
	OutOf     int
	CreatedAt time.Time
}

// Round is ten pairings, or fewer, that a painter practises on.
type Round struct {
	ID        int64
	UID       string `gorm:"default:gen_random_uuid()"` // by which it is known again wherever it is carried
	PainterID int64
	Pairs     []Couple `gorm:"serializer:json"`
	Length    int
	Spacing   string
	Ended     bool // put away before its end
	CreatedAt time.Time
}

// Couple is the two paints of a pairing, by reference.
type Couple struct {
	A string `json:"a"`
	B string `json:"b"`
}

// TableName is a word that says more than rounds.
func (Round) TableName() string { return "practice_rounds" }

// RoundScore is how a round of practice came out.
type RoundScore struct {
	ID        int64
	CreatedAt time.Time
	Guesses   int
	Length    int
	Points    int
	OutOf     int
}

// SectionScore is how the guesses of a section came out.
type SectionScore struct {
	Section                          string
	Guesses, Points, OutOf           int
	HueRight, VerdictRight, MudRight int
}

// What is listed of guesses and rounds at most.
const (
	listedGuesses = 2000
	listedRounds  = 60
)

// AddGuesses keeps guesses, all or none. A pairing is guessed once while its paints
// stay what they are.
func (s *Store) AddGuesses(ctx context.Context, painter int64, guesses []PairGuess) error {
	err := s.transaction(ctx, func(tx *gorm.DB) error {
		for _, g := range guesses {
			g.PainterID, g.RoundID = painter, nil
			if err := tx.Create(&g).Error; err != nil {
				return err
			}
		}
		return nil
	})
	if errors.Is(err, gorm.ErrDuplicatedKey) {
		return Refusal{"This pairing was predicted before, and its cover has been lifted. Practice asks about it again."}
	}
	return err
}

// Guesses lists what a painter said outside of practice, the newest first.
func (s *Store) Guesses(ctx context.Context, painter int64) ([]PairGuess, error) {
	var out []PairGuess
	err := s.with(ctx, func(db *gorm.DB) error {
		return db.Where("painter_id = ? and round_id is null", painter).Order("id desc").Limit(listedGuesses).Find(&out).Error
	})
	return out, err
}

// Expectations lists what a painter said of slots, and of pairings in practice and outside
// of it, the newest first.
func (s *Store) Expectations(ctx context.Context, painter int64) (slots []Prediction, pairs []PairGuess, err error) {
	err = s.with(ctx, func(db *gorm.DB) error {
		if err := db.Where("painter_id = ?", painter).Order("id desc").Limit(listedGuesses).Find(&slots).Error; err != nil {
			return err
		}
		return db.Where("painter_id = ?", painter).Order("id desc").Limit(listedGuesses).Find(&pairs).Error
	})
	return slots, pairs, err
}

// SectionScores adds up all guesses of a painter, section by section.
func (s *Store) SectionScores(ctx context.Context, painter int64) ([]SectionScore, error) {
	of := map[string]*SectionScore{}
	err := s.with(ctx, func(db *gorm.DB) error {
		var guesses []PairGuess
		return db.Select("id, section, points, out_of, outcome").Where("painter_id = ?", painter).FindInBatches(&guesses, 1000, func(*gorm.DB, int) error {
			for i := range guesses {
				g := &guesses[i]
				if of[g.Section] == nil {
					of[g.Section] = &SectionScore{Section: g.Section}
				}
				of[g.Section].add(g)
			}
			return nil
		}).Error
	})
	var out []SectionScore
	for _, section := range slices.Sorted(maps.Keys(of)) {
		out = append(out, *of[section])
	}
	return out, err
}

func (s *SectionScore) add(g *PairGuess) {
	s.Guesses++
	s.Points += g.Points
	s.OutOf += g.OutOf
	for _, one := range []struct {
		right bool
		n     *int
	}{{g.Outcome.HueRight, &s.HueRight}, {g.Outcome.VerdictRight, &s.VerdictRight}, {g.Outcome.MudRight, &s.MudRight}} {
		if one.right {
			*one.n++
		}
	}
}

// RoundScores lists the rounds that were begun, the newest first.
func (s *Store) RoundScores(ctx context.Context, painter int64) ([]RoundScore, error) {
	var out []RoundScore
	err := s.with(ctx, func(db *gorm.DB) error {
		return db.Table("practice_rounds r").Joins("join pair_guesses g on g.round_id = r.id").Where("r.painter_id = ?", painter).
			Select("r.id, r.created_at, r.length, count(*) as guesses, sum(g.points) as points, sum(g.out_of) as out_of").
			Group("r.id").Order("r.id desc").Limit(listedRounds).Scan(&out).Error
	})
	return out, err
}

// OpenRound is the round that a painter has not come to the end of; ErrNotFound
// when there is none.
func (s *Store) OpenRound(ctx context.Context, painter int64) (r Round, guesses []PairGuess, err error) {
	err = s.with(ctx, func(db *gorm.DB) (err error) {
		r, guesses, err = openRound(db, painter)
		return err
	})
	return r, guesses, err
}

func openRound(tx *gorm.DB, painter int64) (Round, []PairGuess, error) {
	var r Round
	err := tx.Where("painter_id = ? and not ended and length > (select count(*) from pair_guesses g where g.round_id = practice_rounds.id)", painter).Order("id desc").Take(&r).Error
	if err != nil {
		return r, nil, known(err)
	}
	guesses, err := guessesOf(tx, painter, r.ID)
	return r, guesses, err
}

func guessesOf(tx *gorm.DB, painter, round int64) ([]PairGuess, error) {
	var out []PairGuess
	err := tx.Where("painter_id = ? and round_id = ?", painter, round).Order("place").Find(&out).Error
	return out, err
}

// Round is one round of a painter's, and what was guessed in it.
func (s *Store) Round(ctx context.Context, painter, id int64) (r Round, guesses []PairGuess, err error) {
	err = s.with(ctx, func(db *gorm.DB) error {
		if err := db.Where("painter_id = ? and id = ?", painter, id).Take(&r).Error; err != nil {
			return known(err)
		}
		guesses, err = guessesOf(db, painter, id)
		return err
	})
	return r, guesses, err
}

// BeginRound keeps a new round, or answers with the one that is still open.
func (s *Store) BeginRound(ctx context.Context, painter int64, r Round) (Round, error) {
	err := s.owned(ctx, painter, func(tx *gorm.DB) error {
		open, _, err := openRound(tx, painter)
		if !errors.Is(err, ErrNotFound) {
			r = open
			return err
		}
		r.PainterID = painter
		return tx.Create(&r).Error
	})
	return r, err
}

// AddAnswer keeps the guess at one place of a round: there is one for each.
func (s *Store) AddAnswer(ctx context.Context, painter, round int64, g PairGuess) error {
	g.PainterID, g.RoundID = painter, &round
	err := s.with(ctx, func(db *gorm.DB) error { return db.Create(&g).Error })
	switch {
	case errors.Is(err, gorm.ErrDuplicatedKey):
		return Refusal{"This pairing of the round was answered before, perhaps in another window. Nothing was changed."}
	case errors.Is(err, gorm.ErrForeignKeyViolated):
		return ErrNotFound
	}
	return err
}

// EndRound puts a round away; what was guessed in it stays.
func (s *Store) EndRound(ctx context.Context, painter, id int64) error {
	return s.with(ctx, func(db *gorm.DB) error {
		done := db.Model(&Round{}).Where("painter_id = ? and id = ?", painter, id).Update("ended", true)
		if done.Error == nil && done.RowsAffected == 0 {
			return ErrNotFound
		}
		return done.Error
	})
}
