package store

import (
	"cmp"
	"context"
	"fmt"
	"slices"
	"time"

	"gorm.io/gorm"
	"gorm.io/gorm/clause"

	"gyrophane/core/text"
)

// Comparison is a comparison that a painter kept: where it was looked at, and
// what came of it.
type Comparison struct {
	ID        int64
	UID       string `gorm:"default:gen_random_uuid()"` // by which it is known again wherever it is carried
	PainterID int64
	Address   string // the page's own, behind its question mark
	Note      string
	Decision  string
	Told      string `gorm:"default:null"` // by which the page knows it: told again it is kept once; empty where it says none
	Version   int
	CreatedAt time.Time
	UpdatedAt time.Time
}

const (
	mostComparisons = 200
	longestAddress  = 500
	longestNote     = 2000
)

// Comparisons lists what a painter kept, the newest first.
func (s *Store) Comparisons(ctx context.Context, painter int64) ([]Comparison, error) {
	var out []Comparison
	err := s.with(ctx, func(db *gorm.DB) error { return db.Where("painter_id = ?", painter).Order("id desc").Find(&out).Error })
	return out, err
}

// Comparison finds one that a painter kept.
func (s *Store) Comparison(ctx context.Context, painter, id int64) (c Comparison, err error) {
	err = s.with(ctx, func(db *gorm.DB) error {
		return known(db.Where("id = ? and painter_id = ?", id, painter).Take(&c).Error)
	})
	return c, err
}

// checked has words that can be kept; they are checked where they are kept, by
// whichever way they came.
func (c Comparison) checked() (Comparison, error) {
	var err error
	for _, one := range []struct {
		what string
		into *string
		most int
	}{{"the address of the comparison", &c.Address, longestAddress}, {"the note", &c.Note, longestNote}, {"the decision", &c.Decision, longestNote}} {
		if *one.into, err = text.Lines(one.what, *one.into, one.most); err != nil {
			return c, refused(err)
		}
	}
	return c, nil
}

// KeepComparison keeps another one. Of says which wheels an address compares:
// where something was decided, they stay as they are now among their versions.
func (s *Store) KeepComparison(ctx context.Context, painter int64, c Comparison, of func(address string) []int64) (Comparison, error) {
	c, err := c.checked()
	if err != nil {
		return c, err
	}
	err = s.owned(ctx, painter, func(tx *gorm.DB) error {
		if c.Told != "" {
			before := tx.Where("painter_id = ? and told = ?", painter, c.Told).Limit(1).Find(&c)
			if before.Error != nil || before.RowsAffected > 0 {
				return before.Error
			}
		}
		var there int64
		if err := tx.Model(&Comparison{}).Where("painter_id = ?", painter).Count(&there).Error; err != nil {
			return err
		}
		if there >= mostComparisons {
			return Refusal{"So many comparisons are kept that no more find room: take some away first."}
		}
		wheels := of(c.Address)
		var own int64
		if err := tx.Model(&Wheel{}).Where("painter_id = ? and id in (?)", painter, append(wheels, 0)).Count(&own).Error; err != nil {
			return err
		}
		slices.Sort(wheels)
		if int(own) < len(slices.Compact(wheels)) {
			return ErrNotFound
		}
		c.PainterID, c.Version = painter, 1
		if err := tx.Create(&c).Error; err != nil {
			return err
		}
		return decidedOn(tx, painter, c.Decision, of(c.Address))
	})
	return c, err
}

// ComparisonConflict says that a comparison was written over elsewhere.
type ComparisonConflict struct{ Now Comparison }

func (c ComparisonConflict) Error() string {
	return fmt.Sprintf("the comparison was changed elsewhere in the meantime; kept now: %s; %s", cmp.Or(c.Now.Note, "no note"), cmp.Or(c.Now.Decision, "no decision"))
}

// decidedOn marks the present versions of the wheels that a decision is about.
func decidedOn(tx *gorm.DB, painter int64, decision string, wheels []int64) error {
	if decision == "" || len(wheels) == 0 {
		return nil
	}
	return tx.Exec(`update wheel_versions v set decision = true from wheels w
		where w.id = v.wheel_id and w.version = v.version and not v.refused and v.painter_id = ? and w.id in (?)`, painter, wheels).Error
}

// NoteComparison changes note and decision of the version a painter looked at;
// of says which wheels its address compares. What is written there already stays as it is.
func (s *Store) NoteComparison(ctx context.Context, painter int64, c Comparison, of func(address string) []int64) error {
	c, err := c.checked()
	if err != nil {
		return err
	}
	return s.transaction(ctx, func(tx *gorm.DB) error {
		var now Comparison
		if err := tx.Clauses(clause.Locking{Strength: "UPDATE"}).Where("painter_id = ? and id = ?", painter, c.ID).Take(&now).Error; err != nil {
			return known(err)
		}
		if now.Note == c.Note && now.Decision == c.Decision {
			return nil // it was told before
		}
		if now.Version != c.Version {
			return ComparisonConflict{now}
		}
		err := tx.Model(&Comparison{}).Where("painter_id = ? and id = ?", painter, c.ID).
			Updates(map[string]any{"note": c.Note, "decision": c.Decision, "version": now.Version + 1}).Error
		if err != nil {
			return err
		}
		return decidedOn(tx, painter, c.Decision, of(now.Address))
	})
}

// DropComparison takes one away.
func (s *Store) DropComparison(ctx context.Context, painter, id int64) error {
	return s.with(ctx, func(db *gorm.DB) error { return dropKept(db, &Comparison{}, painter, id) })
}

// Check says what is wrong with the words of a comparison, with a Refusal.
func (c Comparison) Check() error {
	_, err := c.checked()
	return err
}
