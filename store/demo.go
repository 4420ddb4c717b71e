package store

import (
	"context"
	"errors"
	"time"

	"gorm.io/gorm"
	"gorm.io/gorm/clause"
)

const demoName = "Tide-pool studio"

// DemoRound is a round of practice that the demo studio is said to have played.
type DemoRound struct {
	DaysAgo int
	Round
	Guesses []PairGuess
}

// DemoSitting is a sitting that the demo studio is said to have held of one of its wheels.
type DemoSitting struct {
	Wheel string // its name
	Ago   time.Duration
	Sitting
	Events      []SittingEvent // their times are as long after 0 as they were after its beginning
	Readings    []SittingReading
	Photo       *SittingPhoto
	Predictions []Prediction // of its wheel, the day before
}

// Demo is what the made-up demo studio begins with.
type Demo struct {
	Wheels []WheelContent
	Box    []NewTube
	Rounds []DemoRound
	Wanted []WantedColour
	// Sittings makes the sittings, where there are none yet: that takes a moment.
	Sittings func() ([]DemoSitting, error)
}

// SeedDemo makes the made-up demo studio with its wheels, its box and its
// practice, each once: what is there already stays as it is, edited or removed.
func (s *Store) SeedDemo(ctx context.Context, demo Demo) error {
	if err := s.seedStudio(ctx, demo); err != nil {
		return err
	}
	// The studio is open already while its sittings are made.
	sittings, err := s.sittingsToSeed(ctx, demo)
	if err != nil {
		return err
	}
	return s.transaction(ctx, func(tx *gorm.DB) error {
		var p Painter
		if err := tx.Clauses(clause.Locking{Strength: "UPDATE"}).Where("demo").Take(&p).Error; err != nil {
			return known(err)
		}
		return seedSittings(tx, p.ID, sittings)
	})
}

// seedStudio makes the demo studio but for its sittings.
func (s *Store) seedStudio(ctx context.Context, demo Demo) error {
	return s.transaction(ctx, func(tx *gorm.DB) error {
		p := Painter{Name: demoName, Demo: true}
		made := tx.Clauses(clause.OnConflict{DoNothing: true}).Create(&p)
		if made.Error != nil {
			return made.Error
		}
		if made.RowsAffected > 0 {
			for _, c := range demo.Wheels {
				if _, err := createWheel(tx, p.ID, c); err != nil {
					return err
				}
			}
			for _, w := range demo.Wanted {
				w.PainterID = p.ID
				if err := tx.Create(&w).Error; err != nil {
					return err
				}
			}
		}
		if err := tx.Clauses(clause.Locking{Strength: "UPDATE"}).Where("demo").Take(&p).Error; err != nil {
			return known(err)
		}
		// A studio of before there were boxes, or practice, gets them now.
		if err := seedBox(tx, p.ID, demo.Box); err != nil {
			return err
		}
		return seedRounds(tx, p.ID, demo.Rounds)
	})
}

// sittingsToSeed makes the demo studio's sittings where it has none: before anything is
// locked, for it takes a while.
func (s *Store) sittingsToSeed(ctx context.Context, demo Demo) ([]DemoSitting, error) {
	var there int64
	err := s.with(ctx, func(db *gorm.DB) error {
		return db.Model(&Sitting{}).Joins("join painters on painters.id = sittings.painter_id").Where("painters.demo").Count(&there).Error
	})
	if err != nil || there > 0 || demo.Sittings == nil {
		return nil, err
	}
	return demo.Sittings()
}

func seedSittings(tx *gorm.DB, painter int64, sittings []DemoSitting) error {
	var there int64
	if err := tx.Model(&Sitting{}).Where("painter_id = ?", painter).Count(&there).Error; err != nil || there > 0 {
		return err
	}
	for _, s := range sittings {
		var of Wheel
		switch err := known(tx.Where("painter_id = ? and name = ?", painter, s.Wheel).Order("id").Take(&of).Error); {
		case errors.Is(err, ErrNotFound):
			continue // it has another name by now
		case err != nil:
			return err
		}
		began := tx.NowFunc().Add(-s.Ago)
		s.PainterID, s.WheelID, s.Name, s.CreatedAt = painter, of.ID, s.Wheel, began
		if err := tx.Create(&s.Sitting).Error; err != nil {
			return err
		}
		last := began
		for _, e := range s.Events {
			e.PainterID, e.SittingID, e.At = painter, s.Sitting.ID, began.Add(e.At.Sub(time.Time{}))
			e.CreatedAt, last = e.At, e.At
			if err := tx.Omit("Arrived").Create(&e).Error; err != nil {
				return err
			}
		}
		if s.Photo != nil {
			s.Photo.PainterID, s.Photo.SittingID, s.Photo.CreatedAt = painter, s.Sitting.ID, last
			if err := tx.Create(s.Photo).Error; err != nil {
				return err
			}
		}
		for _, r := range s.Readings {
			if r.OnPhoto.Photo != 0 && s.Photo != nil {
				r.OnPhoto.Photo = s.Photo.ID
			}
			r.PainterID, r.SittingID, r.CreatedAt = painter, s.Sitting.ID, last
			if err := tx.Create(&r).Error; err != nil {
				return err
			}
		}
		for _, r := range s.Predictions {
			r.PainterID, r.WheelID, r.WheelVersion, r.CreatedAt = painter, of.ID, 1, began.AddDate(0, 0, -1)
			if err := tx.Clauses(clause.OnConflict{DoNothing: true}).Create(&r).Error; err != nil {
				return err
			}
		}
	}
	return nil
}

func seedBox(tx *gorm.DB, painter int64, box []NewTube) error {
	var changes int64
	if err := tx.Model(&BoxChange{}).Where("painter_id = ?", painter).Count(&changes).Error; err != nil || changes > 0 || len(box) == 0 {
		return err
	}
	// Undone already, so that nobody empties the box by undoing too far.
	_, err := addTubes(tx, BoxChange{PainterID: painter, Summary: "opened the demo box", Undone: true}, box)
	return err
}

func seedRounds(tx *gorm.DB, painter int64, rounds []DemoRound) error {
	var there int64
	if err := tx.Model(&Round{}).Where("painter_id = ?", painter).Count(&there).Error; err != nil || there > 0 {
		return err
	}
	for _, r := range rounds {
		r.PainterID, r.CreatedAt = painter, tx.NowFunc().AddDate(0, 0, -r.DaysAgo)
		if err := tx.Create(&r.Round).Error; err != nil {
			return err
		}
		for _, g := range r.Guesses {
			g.PainterID, g.RoundID, g.CreatedAt = painter, &r.Round.ID, r.CreatedAt
			if err := tx.Create(&g).Error; err != nil {
				return err
			}
		}
	}
	return nil
}
