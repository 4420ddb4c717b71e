package store

import (
	"context"
	"errors"
	"fmt"
	"reflect"
	"time"

	"gorm.io/gorm"

	"gyrophane/core/paint"
)

// The states of a tube. None is ever deleted: wheels and readings may speak of
// it for ever.
const (
	InBox     = "in"
	Archived  = "archived"
	withdrawn = "withdrawn" // its adding was undone
)

// Tube is a paint of a painter's box.
type Tube struct {
	ID         int64
	UID        string `gorm:"default:gen_random_uuid()"` // by which it is known again wherever it is carried
	PainterID  int64
	Definition paint.Definition `gorm:"serializer:definition"`
	TubeContent
	Learned   *float64 // its strength as it turned out to be; nil where that is not known
	Version   int      // counts the saves; a save names the one it was made on
	StandsFor int      // the version whose content it shows; less than Version after an undo
	CreatedAt time.Time
	UpdatedAt time.Time
}

// TubeContent is what a save of a tube replaces.
type TubeContent struct {
	Nickname string   `json:"nickname"`
	Grade    string   `json:"grade"`
	TubeML   *float64 `json:"tubeMl" gorm:"column:tube_ml"`
	Price    *float64 `json:"price"`
	Note     string   `json:"note"`
	NotSure  string   `json:"notSure,omitempty"`
	State    string   `json:"state"`
}

// ContentOf is what is kept of what a painter says of a tube.
func ContentOf(d paint.TubeDetails) TubeContent {
	state := InBox
	if d.Archived {
		state = Archived
	}
	return TubeContent{Nickname: d.Nickname, Grade: d.Grade, TubeML: d.TubeML, Price: d.Price, Note: d.Note, NotSure: d.NotSure, State: state}
}

// Details is what a painter says of the tube.
func (c TubeContent) Details() paint.TubeDetails {
	return paint.TubeDetails{Nickname: c.Nickname, Grade: c.Grade, TubeML: c.TubeML, Price: c.Price, Note: c.Note, NotSure: c.NotSure, Archived: c.State == Archived}
}

// TableName is for GORM.
func (Tube) TableName() string { return "tubes" }

// TubeVersion is a tube as it once was or, refused, as a save on an outdated
// version would have had it.
type TubeVersion struct {
	ID        int64
	UID       string `gorm:"default:gen_random_uuid()"` // by which it is known again wherever it is carried
	PainterID int64
	TubeID    int64
	Version   int
	Previous  int    // the version it was made from, 0 for none
	ChangeID  *int64 // nil for a refused one
	Refused   bool
	Decision  bool        // the painter chose it over another, so it stays
	Content   TubeContent `gorm:"serializer:json"`
	CreatedAt time.Time
}

// BoxChange is one thing done to a box, to be undone as one.
type BoxChange struct {
	ID        int64
	UID       string `gorm:"default:gen_random_uuid()"` // by which it is known again wherever it is carried
	PainterID int64
	Summary   string // "added 3 paints"
	Undo      bool   // an undoing, which is not undone itself
	Undone    bool
	CreatedAt time.Time
}

// TubeConflict says that a tube was saved elsewhere in the meantime. What could
// not be saved is kept beside it.
type TubeConflict struct{ Kept TubeVersion }

func (TubeConflict) Error() string {
	return "this paint was changed elsewhere in the meantime; both versions are kept"
}

// Limits of a box.
const (
	mostTubes     = 400  // in the box and archived
	mostTubesEver = 5000 // and withdrawn
)

// Tubes lists a painter's tubes, archived ones included, in the order they were
// added.
func (s *Store) Tubes(ctx context.Context, painter int64) ([]Tube, error) {
	var out []Tube
	err := s.with(ctx, func(db *gorm.DB) error {
		return db.Where("painter_id = ? and state <> ?", painter, withdrawn).Order("id").Find(&out).Error
	})
	return out, err
}

// Tube finds one of a painter's tubes.
func (s *Store) Tube(ctx context.Context, painter, id int64) (Tube, error) {
	var t Tube
	err := s.with(ctx, func(db *gorm.DB) (err error) {
		t, err = ownTube(db, painter, id)
		return err
	})
	return t, err
}

func ownTube(tx *gorm.DB, painter, id int64) (Tube, error) {
	var t Tube
	err := tx.Where("id = ? and painter_id = ? and state <> ?", id, painter, withdrawn).Take(&t).Error
	return t, known(err)
}

// NewTube is a tube to be added.
type NewTube struct {
	Definition paint.Definition
	Content    TubeContent
}

// AddTubes puts tubes into a box, all or none, as one change.
func (s *Store) AddTubes(ctx context.Context, painter int64, summary string, tubes []NewTube) ([]Tube, error) {
	var out []Tube
	err := s.owned(ctx, painter, func(tx *gorm.DB) (err error) {
		out, err = addTubes(tx, BoxChange{PainterID: painter, Summary: summary}, tubes)
		return err
	})
	return out, err
}

func addTubes(tx *gorm.DB, change BoxChange, tubes []NewTube) ([]Tube, error) {
	out, _, err := addTubesAs(tx, change, tubes)
	return out, err
}

// addTubesAs is addTubes with the id of the change.
func addTubesAs(tx *gorm.DB, change BoxChange, tubes []NewTube) (out []Tube, id int64, err error) {
	painter := change.PainterID
	var now, ever int64
	if err := tx.Model(&Tube{}).Where("painter_id = ?", painter).Count(&ever).Error; err != nil {
		return nil, 0, err
	}
	if err := tx.Model(&Tube{}).Where("painter_id = ? and state <> ?", painter, withdrawn).Count(&now).Error; err != nil {
		return nil, 0, err
	}
	if now+int64(len(tubes)) > mostTubes || ever+int64(len(tubes)) > mostTubesEver {
		return nil, 0, Refusal{fmt.Sprintf("A box holds %d paints at most, archived ones included; these would be too many.", mostTubes)}
	}
	if err := tx.Create(&change).Error; err != nil {
		return nil, 0, err
	}
	for _, n := range tubes {
		t := Tube{PainterID: painter, Definition: n.Definition, TubeContent: n.Content, Version: 1, StandsFor: 1}
		if err := tx.Create(&t).Error; err != nil {
			return nil, 0, err
		}
		v := TubeVersion{PainterID: painter, TubeID: t.ID, Version: 1, ChangeID: &change.ID, Content: n.Content}
		if err := tx.Create(&v).Error; err != nil {
			return nil, 0, err
		}
		out = append(out, t)
	}
	return out, change.ID, nil
}

// SaveTube replaces what is said of a tube, if it still stands at the version
// the change was made on. If not, the change is kept as a refused version and
// the error is a TubeConflict. Resolves names a refused version that this save
// settles, or is 0.
func (s *Store) SaveTube(ctx context.Context, painter, id int64, onVersion int, summary string, c TubeContent, resolves int64) (Tube, error) {
	var t Tube
	var conflict *TubeConflict
	err := s.owned(ctx, painter, func(tx *gorm.DB) error {
		now, err := ownTube(tx, painter, id)
		if err != nil {
			return err
		}
		if now.Version == onVersion+1 && reflect.DeepEqual(now.TubeContent, c) {
			t = now // it came once already: its answer was lost
			return nil
		}
		if now.Version != onVersion {
			kept := TubeVersion{PainterID: painter, TubeID: id, Version: onVersion, Refused: true, Content: c}
			if err := tx.Create(&kept).Error; err != nil {
				return err
			}
			conflict = &TubeConflict{kept}
			newest := tx.Model(&TubeVersion{}).Select("id").Where("tube_id = ? and painter_id = ? and refused", id, painter).Order("id desc").Limit(keptRefusedWrites)
			return tx.Where("tube_id = ? and painter_id = ? and refused and id not in (?)", id, painter, newest).Delete(&TubeVersion{}).Error
		}
		if resolves != 0 {
			if err := dropRefusedTube(tx, painter, id, resolves); err != nil && !errors.Is(err, ErrNotFound) {
				return err
			}
		}
		change := BoxChange{PainterID: painter, Summary: summary}
		if err := tx.Create(&change).Error; err != nil {
			return err
		}
		t, err = advanceTube(tx, now, c, now.Version+1, TubeVersion{Previous: now.StandsFor, ChangeID: &change.ID, Decision: resolves != 0})
		return err
	})
	if err == nil && conflict != nil {
		return Tube{}, *conflict
	}
	return t, err
}

// SwapTube archives a tube, where it still stands at a version, and puts another in its place, as one
// change. The error is a Refusal where it was changed in the meantime.
func (s *Store) SwapTube(ctx context.Context, painter, id int64, onVersion int, summary string, with NewTube) error {
	return s.owned(ctx, painter, func(tx *gorm.DB) error {
		was, err := ownTube(tx, painter, id)
		if err != nil {
			return err
		}
		if was.Version != onVersion {
			return Refusal{"This paint was changed elsewhere in the meantime: look at it again."}
		}
		added, change, err := addTubesAs(tx, BoxChange{PainterID: painter, Summary: summary}, []NewTube{with})
		if err != nil || len(added) == 0 {
			return err
		}
		c := was.TubeContent
		c.State, c.NotSure = Archived, ""
		_, err = advanceTube(tx, was, c, was.Version+1, TubeVersion{Previous: was.StandsFor, ChangeID: &change})
		return err
	})
}

// advanceTube writes a tube's next version, of which v says how it came about.
func advanceTube(tx *gorm.DB, t Tube, c TubeContent, standsFor int, v TubeVersion) (Tube, error) {
	t.TubeContent, t.StandsFor = c, standsFor
	t.Version++
	err := tx.Select("nickname", "grade", "tube_ml", "price", "note", "not_sure", "state", "version", "stands_for", "updated_at").
		Where("painter_id = ?", t.PainterID).Updates(&t).Error
	if err != nil {
		return Tube{}, err
	}
	v.PainterID, v.TubeID, v.Version, v.Content = t.PainterID, t.ID, t.Version, c
	if err := tx.Create(&v).Error; err != nil {
		return Tube{}, err
	}
	return t, thinTube(tx, t)
}

// LastChange is what an undo would take back; ErrNothingToUndo when there is
// nothing.
func (s *Store) LastChange(ctx context.Context, painter int64) (BoxChange, error) {
	var c BoxChange
	err := s.with(ctx, func(db *gorm.DB) (err error) {
		c, err = lastChange(db, painter)
		return err
	})
	return c, err
}

func lastChange(tx *gorm.DB, painter int64) (BoxChange, error) {
	var c BoxChange
	err := tx.Where("painter_id = ? and not undo and not undone", painter).Order("id desc").Limit(1).Take(&c).Error
	if errors.Is(err, gorm.ErrRecordNotFound) {
		return c, ErrNothingToUndo
	}
	return c, err
}

// UndoBox takes a box's last change back, all of it. The change must be the
// last still, so that two tabs do not undo one thing after another unseen.
func (s *Store) UndoBox(ctx context.Context, painter, change int64) error {
	return s.owned(ctx, painter, func(tx *gorm.DB) error {
		var done BoxChange
		if err := tx.Where("painter_id = ? and id = ? and undone", painter, change).Limit(1).Find(&done).Error; err != nil || done.ID != 0 {
			return err // it was taken back already, and the answer was lost
		}
		last, err := lastChange(tx, painter)
		if err != nil {
			return err
		}
		elsewhere := Refusal{"The box was changed elsewhere in the meantime; look at it again before undoing."}
		if last.ID != change {
			return elsewhere
		}
		var versions []TubeVersion
		if err := tx.Where("painter_id = ? and change_id = ? and not refused", painter, change).Order("id").Find(&versions).Error; err != nil {
			return err
		}
		undo := BoxChange{PainterID: painter, Summary: "undid: " + last.Summary, Undo: true}
		if err := tx.Create(&undo).Error; err != nil {
			return err
		}
		for _, v := range versions {
			now, err := ownTube(tx, painter, v.TubeID)
			if err != nil {
				return err
			}
			if now.StandsFor != v.Version {
				return elsewhere
			}
			before := v.Content
			before.State = withdrawn
			if v.Previous != 0 {
				var p TubeVersion
				if err := tx.Where("painter_id = ? and tube_id = ? and version = ? and not refused", painter, v.TubeID, v.Previous).Take(&p).Error; err != nil {
					return known(err)
				}
				before = p.Content
			}
			if _, err := advanceTube(tx, now, before, v.Previous, TubeVersion{ChangeID: &undo.ID}); err != nil {
				return err
			}
		}
		return tx.Model(&BoxChange{}).Where("id = ? and painter_id = ?", last.ID, painter).Update("undone", true).Error
	})
}

// RefusedTubes lists what could not be saved in a box and still waits for the
// painter to choose, the newest first.
func (s *Store) RefusedTubes(ctx context.Context, painter int64) ([]TubeVersion, error) {
	var out []TubeVersion
	err := s.with(ctx, func(db *gorm.DB) error {
		return db.Where("painter_id = ? and refused", painter).Order("id desc").Find(&out).Error
	})
	return out, err
}

// DropRefusedTube lets a refused version go.
func (s *Store) DropRefusedTube(ctx context.Context, painter, tube, version int64) error {
	return s.with(ctx, func(db *gorm.DB) error { return dropRefusedTube(db, painter, tube, version) })
}

func dropRefusedTube(tx *gorm.DB, painter, tube, version int64) error {
	return dropKept(tx.Where("tube_id = ? and refused", tube), &TubeVersion{}, painter, version)
}

// SetOldBox keeps whether a painter calls the box old and mixed.
func (s *Store) SetOldBox(ctx context.Context, painter int64, old bool) error {
	return s.with(ctx, func(db *gorm.DB) error {
		return db.Model(&Painter{}).Where("id = ?", painter).Update("old_box", old).Error
	})
}

// SetWarmBlue keeps which blue a painter calls warm: the one leaning to
// "violet" or to "green".
func (s *Store) SetWarmBlue(ctx context.Context, painter int64, school string) error {
	return s.with(ctx, func(db *gorm.DB) error {
		return db.Model(&Painter{}).Where("id = ?", painter).Update("warm_blue", school).Error
	})
}
