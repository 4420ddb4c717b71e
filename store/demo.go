package store

import (
	"context"

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

// Demo is what the made-up demo studio begins with.
type Demo struct {
	Wheels []WheelContent
	Box    []NewTube
	Rounds []DemoRound
	Wanted []WantedColour
}

// SeedDemo makes the made-up demo studio with its wheels, its box and its
// practice, each once: what is there already stays as it is, edited or removed.
func (s *Store) SeedDemo(ctx context.Context, demo Demo) error {
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
