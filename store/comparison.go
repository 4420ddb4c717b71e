package store

import (
	"context"
	"time"

	"gorm.io/gorm"
	"gorm.io/gorm/clause"
)

// Comparison is a comparison that a painter kept: where it was looked at, and
// what came of it.
type Comparison struct {
	ID        int64
	PainterID int64
	Address   string // the page's own, behind its question mark
	Note      string
	Decision  string
	Version   int
	CreatedAt time.Time
	UpdatedAt time.Time
}

const mostComparisons = 200

// Comparisons lists what a painter kept, the newest first.
func (s *Store) Comparisons(ctx context.Context, painter int64) ([]Comparison, error) {
	var out []Comparison
	err := s.db.WithContext(ctx).Where("painter_id = ?", painter).Order("id desc").Find(&out).Error
	return out, err
}

// KeepComparison keeps another one.
func (s *Store) KeepComparison(ctx context.Context, painter int64, c Comparison) (Comparison, error) {
	err := s.db.WithContext(ctx).Transaction(func(tx *gorm.DB) error {
		// One painter's comparisons are counted and added one after the other.
		if err := tx.Clauses(clause.Locking{Strength: "UPDATE"}).Where("id = ?", painter).Take(&Painter{}).Error; err != nil {
			return known(err)
		}
		var there int64
		if err := tx.Model(&Comparison{}).Where("painter_id = ?", painter).Count(&there).Error; err != nil {
			return err
		}
		if there >= mostComparisons {
			return Refusal{"So many comparisons are kept that no more find room: take some away first."}
		}
		c.PainterID, c.Version = painter, 1
		return tx.Create(&c).Error
	})
	return c, err
}

// ComparisonConflict says that a comparison was written over elsewhere.
type ComparisonConflict struct{ Now Comparison }

func (ComparisonConflict) Error() string { return "the comparison was changed elsewhere" }

// NoteComparison changes note and decision of the version a painter looked at.
func (s *Store) NoteComparison(ctx context.Context, painter int64, c Comparison) error {
	return s.db.WithContext(ctx).Transaction(func(tx *gorm.DB) error {
		var now Comparison
		if err := tx.Clauses(clause.Locking{Strength: "UPDATE"}).Where("painter_id = ? and id = ?", painter, c.ID).Take(&now).Error; err != nil {
			return known(err)
		}
		if now.Version != c.Version {
			return ComparisonConflict{now}
		}
		return tx.Model(&Comparison{}).Where("painter_id = ? and id = ?", painter, c.ID).
			Updates(map[string]any{"note": c.Note, "decision": c.Decision, "version": now.Version + 1}).Error
	})
}

// DropComparison takes one away.
func (s *Store) DropComparison(ctx context.Context, painter, id int64) error {
	done := s.db.WithContext(ctx).Where("painter_id = ? and id = ?", painter, id).Delete(&Comparison{})
	if done.Error == nil && done.RowsAffected == 0 {
		return ErrNotFound
	}
	return done.Error
}
