package store

import (
	"context"
	"fmt"
	"time"

	"gorm.io/gorm"
	"gorm.io/gorm/clause"
)

// PairMark is how far a painter has come with a pairing: "to paint", "painted"
// or "judged". A and B are paints by reference, the lesser first.
type PairMark struct {
	PainterID int64
	A, B      string
	Mark      string
	UpdatedAt time.Time
}

// MarkChange marks a pairing; an empty mark takes it away. Was is the mark it
// had when the painter looked.
type MarkChange struct{ A, B, Mark, Was string }

func (c MarkChange) ordered() MarkChange {
	if c.B < c.A {
		c.A, c.B = c.B, c.A
	}
	return c
}

// PairMarks lists a painter's marks.
func (s *Store) PairMarks(ctx context.Context, painter int64) ([]PairMark, error) {
	var out []PairMark
	err := s.with(ctx, func(db *gorm.DB) error { return db.Where("painter_id = ?", painter).Order("a, b").Find(&out).Error })
	return out, err
}

// MarkPairs marks pairings, all or none: none when one of them was marked
// elsewhere in the meantime.
func (s *Store) MarkPairs(ctx context.Context, painter int64, changes []MarkChange) error {
	return s.owned(ctx, painter, func(tx *gorm.DB) error {
		for _, c := range changes {
			c = c.ordered()
			own := tx.Where("painter_id = ? and a = ? and b = ?", painter, c.A, c.B)
			var now []PairMark
			if err := own.Find(&now).Error; err != nil {
				return err
			}
			was := ""
			if len(now) > 0 {
				was = now[0].Mark
			}
			if was != c.Was && was != c.Mark {
				return MarkConflict{c.A, c.B, was}
			}
			var err error
			if c.Mark == "" {
				err = tx.Where("painter_id = ? and a = ? and b = ?", painter, c.A, c.B).Delete(&PairMark{}).Error
			} else {
				err = tx.Clauses(clause.OnConflict{
					Columns:   []clause.Column{{Name: "painter_id"}, {Name: "a"}, {Name: "b"}},
					DoUpdates: clause.AssignmentColumns([]string{"mark", "updated_at"}),
				}).Create(&PairMark{PainterID: painter, A: c.A, B: c.B, Mark: c.Mark, UpdatedAt: s.Now()}).Error
			}
			if err != nil {
				return err
			}
		}
		return nil
	})
}

// MarkConflict says that a pairing was marked elsewhere in the meantime.
type MarkConflict struct{ A, B, Mark string }

func (c MarkConflict) Error() string {
	if c.Mark == "" {
		return fmt.Sprintf("the mark of %s with %s was taken away elsewhere in the meantime", c.A, c.B)
	}
	return fmt.Sprintf("%s with %s was marked %s elsewhere in the meantime", c.A, c.B, c.Mark)
}
