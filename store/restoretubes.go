package store

import (
	"cmp"
	"reflect"

	"gorm.io/gorm/clause"

	"gyrophane/core/input"
	"gyrophane/core/paint"
)

// numbers gives the versions of a thing in an archive numbers behind the last of those that are there, but for
// what is there already; what was refused is no version of it.
func numbers[V any](archived, there []V, of func(V) (uid string, number int, refused bool)) (is map[int]int, last int) {
	is = map[int]int{}
	by := map[string]int{}
	for _, v := range there {
		if uid, n, refused := of(v); !refused {
			by[uid], last = n, max(last, n)
		}
	}
	next := last
	for _, v := range archived {
		uid, n, refused := of(v)
		if refused {
			continue
		}
		if here, known := by[uid]; known {
			is[n] = here
			continue
		}
		next = max(next+1, n)
		is[n] = next
	}
	return is, last
}

// box takes in the tubes, with what was done to the box.
func (r *restoring) box() error {
	var before int64
	if err := r.tx.Model(&BoxChange{}).Where("painter_id = ?", r.painter).Count(&before).Error; err != nil {
		return err
	}
	for _, c := range r.from.Changes {
		now, found, err := find[BoxChange](r, c.UID)
		if err != nil {
			return err
		}
		if was := c.ID; found {
			r.changes[was] = now.ID
		} else {
			c.ID, c.PainterID = 0, r.painter
			c.Undone = c.Undone || before > 0 // what was done here is what is undone here
			if err := r.tx.Create(&c).Error; err != nil {
				return err
			}
			r.changes[was] = c.ID
		}
	}
	kind := r.kind("tubes")
	for i := range r.from.Tubes {
		if err := r.oneTube(&r.from.Tubes[i], kind); err != nil {
			return err
		}
		r.seen()
	}
	return nil
}

func (r *restoring) oneTube(a *ArchivedTube, kind *RestoredKind) error {
	now, found, err := find[Tube](r, a.UID)
	if err != nil {
		return err
	}
	ref := paint.TubeID(a.ID)
	if !found {
		t := a.Tube
		t.ID, t.PainterID, t.Learned = 0, r.painter, nil
		if err := r.tx.Create(&t).Error; err != nil {
			return err
		}
		r.tubes[ref] = paint.TubeID(t.ID)
		if err := r.tubeVersions(a, t.ID, nil); err != nil {
			return err
		}
		kind.Added++
		return r.count("tubes", t.ID, a.Vector)
	}
	r.tubes[ref] = paint.TubeID(now.ID)
	vector, err := r.vectorOf("tubes", now.ID)
	if err != nil {
		return err
	}
	order := a.Vector.Against(vector)
	if order == Same && !reflect.DeepEqual(a.TubeContent, now.TubeContent) {
		order = TwoWays
	}
	as := func(v TubeVersion) (TubeVersion, bool) {
		v.ID, v.PainterID, v.TubeID, v.ChangeID = 0, r.painter, now.ID, nil
		return v, v.Refused
	}
	switch order {
	case Same, Older:
		kind.Stay++
		return waiting(r, a.Versions, as)
	case Newer:
		kind.Updated++
		var there []TubeVersion
		if err := r.tx.Where("tube_id = ? and painter_id = ?", now.ID, r.painter).Order("id").Find(&there).Error; err != nil {
			return err
		}
		if err := r.tubeVersions(a, now.ID, there); err != nil {
			return err
		}
		return r.count("tubes", now.ID, vector.With(a.Vector))
	}
	kind.Beside = append(kind.Beside, cmp.Or(a.Nickname, a.Definition.Name, a.Definition.Library))
	if err := waiting(r, a.Versions, as); err != nil {
		return err
	}
	kept := TubeVersion{UID: headOf(a), PainterID: r.painter, TubeID: now.ID, Version: now.Version, Refused: true, Content: a.TubeContent}
	if err := r.tx.Clauses(clause.OnConflict{DoNothing: true}).Create(&kept).Error; err != nil {
		return err
	}
	return r.count("tubes", now.ID, vector.With(a.Vector))
}

// waiting takes in what could not be saved and waits to be chosen, where it is not there.
func waiting[V any](r *restoring, versions []V, as func(V) (is V, refused bool)) error {
	for _, v := range versions {
		one, refused := as(v)
		if !refused {
			continue
		}
		if err := r.tx.Clauses(clause.OnConflict{DoNothing: true}).Create(&one).Error; err != nil {
			return err
		}
	}
	return nil
}

// headOf is the lasting id of the version that a tube of an archive is at.
func headOf(a *ArchivedTube) string {
	for _, v := range a.Versions {
		if !v.Refused && v.Version == a.Version {
			return v.UID
		}
	}
	return ""
}

// tubeVersions puts the versions that a tube of an archive has been through behind those that are there, and the
// tube at the last of them.
func (r *restoring) tubeVersions(a *ArchivedTube, id int64, there []TubeVersion) error {
	is, last := numbers(a.Versions, there, func(v TubeVersion) (string, int, bool) { return v.UID, v.Version, v.Refused })
	known := map[string]bool{}
	for _, v := range there {
		known[v.UID] = true
	}
	for _, v := range a.Versions {
		if known[v.UID] {
			continue
		}
		v.ID, v.PainterID, v.TubeID = 0, r.painter, id
		if v.ChangeID != nil {
			change, known := r.changes[*v.ChangeID]
			if v.ChangeID = &change; !known {
				v.ChangeID = nil
			}
		}
		if !v.Refused {
			if v.Previous != 0 {
				v.Previous = cmp.Or(is[v.Previous], last)
			}
			v.Version = is[v.Version]
		}
		if err := r.tx.Create(&v).Error; err != nil {
			return err
		}
	}
	t := a.Tube
	t.ID, t.Version, t.StandsFor = id, is[a.Version], is[a.StandsFor]
	if t.Version == 0 {
		return input.Errorf("the backup has a tube without the version that it is at")
	}
	return r.tx.Model(&Tube{ID: id}).Where("painter_id = ?", r.painter).Select("nickname", "grade", "tube_ml", "price", "note", "not_sure", "state", "version", "stands_for", "updated_at").UpdateColumns(&t).Error
}
