package store

import (
	"context"
	"fmt"
	"time"

	"gorm.io/gorm"
	"gorm.io/gorm/clause"

	"gyrophane/core/certainty"
	"gyrophane/core/paint"
)

// Taking is strengths that a painter took into the box, as readings told them. It can be
// taken back at any time, and taken again.
type Taking struct {
	ID        int64
	UID       string `gorm:"default:gen_random_uuid()"` // by which it is known again wherever it is carried
	PainterID int64
	SittingID *int64 // that it was taken at; nil where that was deleted
	Medium    string
	Readings  int      // that it was learned from
	Sittings  int      // in which those were read
	FilmWas   *float64 // how thick the medium was taken to be laid, over the usual
	Film      *float64 // as it turned out to be; nil where strengths were taken
	UndoneAt  *time.Time
	CreatedAt time.Time
	Strengths []TakenStrength
}

// TakenStrength is what a tube turned out to be.
type TakenStrength struct {
	TakingID  int64 `gorm:"primaryKey"`
	TubeID    int64 `gorm:"primaryKey"`
	PainterID int64
	Was       float64 // its strength before
	Strength  float64
	Low, High float64         // 95 in 100
	Library   string          // the version that it is of; empty for a tube of own curves
	Kept      bool            // it is what it was taken for: the strength stays, and how far it is known is kept
	Known     *certainty.Rows `gorm:"serializer:json"` // nil where nothing is known but the interval
}

// mostTakings is how many are kept of a painter.
const mostTakings = 1000

// Take keeps a taking, and gives its tubes their strengths. Where a strength has no tube,
// the one of that index in added is put into the box for it. The error is a Refusal where a
// tube's strength is not what it was any more when the painter looked.
func (s *Store) Take(ctx context.Context, painter int64, t Taking, summary string, added map[int]NewTube) (Taking, error) {
	t.PainterID = painter
	err := s.owned(ctx, painter, func(tx *gorm.DB) error {
		var n int64
		if err := tx.Model(&Taking{}).Where("painter_id = ?", painter).Count(&n).Error; err != nil {
			return err
		}
		if n >= mostTakings {
			return Refusal{fmt.Sprintf("Strengths were taken %d times, which is the most that is kept.", mostTakings)}
		}
		var fresh []NewTube
		var of []int
		for i := range t.Strengths {
			if one, is := added[i]; is {
				fresh, of = append(fresh, one), append(of, i)
			}
		}
		if len(fresh) > 0 {
			tubes, err := addTubes(tx, BoxChange{PainterID: painter, Summary: summary}, fresh)
			if err != nil {
				return err
			}
			for n, tube := range tubes {
				t.Strengths[of[n]].TubeID = tube.ID
			}
		}
		if err := keepTaking(tx, &t); err != nil || t.SittingID == nil {
			return err
		}
		return tell(tx, painter, *t.SittingID)
	})
	return t, err
}

// keepTaking writes a taking, and gives its tubes their strengths.
func keepTaking(tx *gorm.DB, t *Taking) error {
	if err := tx.Omit("Strengths").Create(t).Error; err != nil {
		return err
	}
	for i := range t.Strengths {
		one := &t.Strengths[i]
		one.TakingID, one.PainterID = t.ID, t.PainterID
		tube, err := ownTube(tx, t.PainterID, one.TubeID)
		if err != nil {
			return err
		}
		if tube.Definition.Library != "" {
			one.Library = paint.LibraryVersion()
		}
		if err := tx.Create(one).Error; err != nil {
			return err
		}
	}
	return strengthen(tx, *t)
}

// asLastTaken gives tubes the strengths of the last taking that stands; which of them, its where says.
const asLastTaken = `update tubes set learned = (
	select s.strength from taken_strengths s join takings t on t.id = s.taking_id
	where s.tube_id = tubes.id and not s.kept and t.undone_at is null order by t.id desc limit 1)
`

// strengthen gives the tubes of a taking the strengths of the last taking that stands.
func strengthen(tx *gorm.DB, t Taking) error {
	for _, one := range t.Strengths {
		err := tx.Exec(asLastTaken+`where id = ? and painter_id = ?`, one.TubeID, t.PainterID).Error
		if err != nil {
			return err
		}
	}
	return nil
}

// UndoTaking takes strengths back or, again, as they were taken: each tube is then what the
// last taking says that stands, or as its grade has it where none does.
func (s *Store) UndoTaking(ctx context.Context, painter, id int64, undone bool) error {
	return s.owned(ctx, painter, func(tx *gorm.DB) error {
		var t Taking
		if err := tx.Omit("Strengths").Clauses(clause.Locking{Strength: "UPDATE"}).Where("id = ? and painter_id = ?", id, painter).Take(&t).Error; err != nil {
			return known(err)
		}
		if undone == (t.UndoneAt != nil) {
			return nil // it came once already
		}
		var at *time.Time
		if undone {
			now := tx.NowFunc()
			at = &now
		}
		if err := tx.Model(&Taking{}).Where("id = ? and painter_id = ?", id, painter).Update("undone_at", at).Error; err != nil {
			return err
		}
		if err := tx.Where("taking_id = ? and painter_id = ?", id, painter).Find(&t.Strengths).Error; err != nil {
			return err
		}
		return strengthen(tx, t)
	})
}

// Film is how thick a painter lays a medium, over the usual, by the last taking that stands;
// 1 where none says it.
func (s *Store) Film(ctx context.Context, painter int64, medium string) (film float64, err error) {
	err = s.with(ctx, func(db *gorm.DB) error {
		return db.Raw(`select coalesce((select film from takings where painter_id = ? and medium = ? and film is not null and undone_at is null order by id desc limit 1), 1)`, painter, medium).Scan(&film).Error
	})
	return film, err
}

// Takings lists what a painter took into the box, the last one first.
func (s *Store) Takings(ctx context.Context, painter int64) (out []Taking, err error) {
	err = s.with(ctx, func(db *gorm.DB) error {
		return db.Preload("Strengths", func(db *gorm.DB) *gorm.DB { return db.Order("tube_id") }).Where("painter_id = ?", painter).Order("id desc").Find(&out).Error
	})
	return out, err
}

// LastStrengths are, of each tube, what the last taking that stands says of it: one row a tube.
func (s *Store) LastStrengths(ctx context.Context, painter int64) (out []TakenStrength, err error) {
	err = s.with(ctx, func(db *gorm.DB) error {
		return db.Raw(`select distinct on (s.tube_id) s.* from taken_strengths s join takings t on t.id = s.taking_id
			where s.painter_id = ? and t.undone_at is null order by s.tube_id, s.taking_id desc`, painter).Scan(&out).Error
	})
	return out, err
}
