package store

import (
	"cmp"
	"slices"
	"strings"

	"gorm.io/gorm/clause"

	"gyrophane/core/input"
)

// allWheels takes in the wheels.
func (r *restoring) allWheels() error {
	kind := r.kind("wheels")
	for i := range r.from.Wheels {
		if err := r.oneWheel(&r.from.Wheels[i], kind); err != nil {
			return err
		}
		r.seen()
	}
	return nil
}

// wheelHere is a wheel, or another way of it, that is there.
type wheelHere struct {
	Wheel  `gorm:"embedded"`
	Beside *string `gorm:"column:beside_of"`
	Vector string  `gorm:"column:version_vector"`
}

func (r *restoring) oneWheel(a *ArchivedWheel, kind *RestoredKind) error {
	of := cmp.Or(a.Beside, a.UID)
	var there []wheelHere
	if err := r.tx.Table("wheels").Where("painter_id = ? and (uid = ? or beside_of = ?)", r.painter, of, of).Order("id").Find(&there).Error; err != nil {
		return err
	}
	var later *wheelHere
	for i := range there {
		w := &there[i]
		vector, err := parseVector(w.Vector)
		if err != nil {
			return err
		}
		order := a.Vector.Against(vector)
		if order == Same {
			head, err := keptVersion(r.tx, w.Wheel, w.Version)
			if err != nil {
				return err
			}
			if !slices.ContainsFunc(a.Versions, func(v WheelVersion) bool { return v.UID == head.UID && v.Version == a.Version }) {
				order = TwoWays
			}
		}
		switch order {
		case Same, Older:
			kind.Stay++
			r.wheels[a.ID] = w.ID
			if err := waiting(r, a.Versions, func(v WheelVersion) (WheelVersion, bool) {
				v.ID, v.PainterID, v.WheelID, v.Snapshot = 0, r.painter, w.ID, v.Snapshot.With(r.tube)
				return v, v.Refused
			}); err != nil {
				return err
			}
			return r.saidOf(a, w.ID, nil)
		case Newer:
			if later == nil {
				later = w
			}
		}
	}
	if later != nil {
		kind.Updated++
		r.wheels[a.ID] = later.ID
		return r.wheelOn(a, later)
	}
	uid, beside := a.UID, a.Beside
	if slices.ContainsFunc(there, func(w wheelHere) bool { return w.UID == uid }) {
		uid, beside = "", of
		kind.Beside = append(kind.Beside, a.Name)
	} else {
		kind.Added++
	}
	return r.newWheel(a, uid, beside)
}

// twoWays is behind the name of a wheel that went another way.
const twoWays = ", the other way"

// called is the content of a wheel, named as another way of one where it is.
func (a *ArchivedWheel) called(beside bool) WheelContent {
	c := a.WheelContent
	if beside && !strings.HasSuffix(c.Name, twoWays) {
		name := []rune(c.Name)
		c.Name = string(name[:min(len(name), longestName-len(twoWays))]) + twoWays
	}
	return c
}

// newWheel adds a wheel with its system.
func (r *restoring) newWheel(a *ArchivedWheel, uid, beside string) error {
	c := a.called(beside != "")
	c.Snapshot = c.Snapshot.With(r.tube)
	system := System{PainterID: r.painter, Name: c.Name, Kind: c.Kind, Roles: c.Snapshot, Version: a.Version, CreatedAt: a.CreatedAt, UpdatedAt: a.UpdatedAt}
	if err := r.tx.Create(&system).Error; err != nil {
		return err
	}
	w := Wheel{UID: uid, PainterID: r.painter, SystemID: system.ID, WheelContent: c, Version: a.Version, CreatedAt: a.CreatedAt, UpdatedAt: a.UpdatedAt}
	if err := r.tx.Create(&w).Error; err != nil {
		return err
	}
	r.wheels[a.ID] = w.ID
	is, err := r.wheelVersions(a, &wheelHere{Wheel: w, Beside: orNil(beside)}, nil)
	if err != nil {
		return err
	}
	if err := r.tx.Exec("update wheels set beside_of = ? where id = ?", orNil(beside), w.ID).Error; err != nil {
		return err
	}
	if err := r.count("wheels", w.ID, a.Vector); err != nil {
		return err
	}
	return r.saidOf(a, w.ID, is)
}

func orNil(text string) *string {
	if text == "" {
		return nil
	}
	return &text
}

// wheelOn takes a wheel on to what the archive has of it.
func (r *restoring) wheelOn(a *ArchivedWheel, w *wheelHere) error {
	var there []WheelVersion
	if err := r.tx.Where("wheel_id = ? and painter_id = ?", w.ID, r.painter).Order("id").Find(&there).Error; err != nil {
		return err
	}
	is, err := r.wheelVersions(a, w, there)
	if err != nil {
		return err
	}
	c := a.called(w.Beside != nil)
	c.Snapshot = c.Snapshot.With(r.tube)
	now := Wheel{ID: w.ID, WheelContent: c, Version: is[a.Version], UpdatedAt: a.UpdatedAt}
	if err := r.tx.Model(&Wheel{ID: w.ID}).Where("painter_id = ?", r.painter).Select("name", "kind", "snapshot", "settings", "archived", "library_version", "version", "updated_at").UpdateColumns(&now).Error; err != nil {
		return err
	}
	if err := r.tx.Model(&System{}).Where("id = ? and painter_id = ?", w.SystemID, r.painter).Select("name", "kind", "roles", "version", "updated_at").
		UpdateColumns(&System{Name: c.Name, Kind: c.Kind, Roles: c.Snapshot, Version: now.Version, UpdatedAt: a.UpdatedAt}).Error; err != nil {
		return err
	}
	vector, err := parseVector(w.Vector)
	if err != nil {
		return err
	}
	if err := r.count("wheels", w.ID, vector.With(a.Vector)); err != nil {
		return err
	}
	return r.saidOf(a, w.ID, is)
}

// wheelVersions puts the versions of a wheel of an archive behind those that are there.
func (r *restoring) wheelVersions(a *ArchivedWheel, w *wheelHere, there []WheelVersion) (is map[int]int, err error) {
	is, last := numbers(a.Versions, there, func(v WheelVersion) (string, int, bool) { return v.UID, v.Version, v.Refused })
	if is[a.Version] == 0 {
		return nil, input.Errorf("the backup has a wheel without the version that it is at: %s", input.Clip(a.Name))
	}
	known := map[string]bool{}
	for _, v := range there {
		known[v.UID] = true
	}
	for _, v := range a.Versions {
		if known[v.UID] {
			continue
		}
		v.ID, v.PainterID, v.WheelID, v.Snapshot = 0, r.painter, w.ID, v.Snapshot.With(r.tube)
		if !v.Refused {
			if v.Version == a.Version {
				v.Name = a.called(w.Beside != nil).Name
			}
			if v.BackTo != 0 {
				v.BackTo = cmp.Or(is[v.BackTo], last)
			}
			v.Version = is[v.Version]
		}
		if err := r.tx.Create(&v).Error; err != nil {
			return nil, err
		}
	}
	return is, nil
}

// saidOf takes in what was predicted and printed of a wheel; is are the numbers of its versions here, nil where
// they must be looked up.
func (r *restoring) saidOf(a *ArchivedWheel, id int64, is map[int]int) error {
	if is == nil {
		var there []WheelVersion
		if err := r.tx.Select("uid", "version").Where("wheel_id = ? and painter_id = ? and not refused", id, r.painter).Find(&there).Error; err != nil {
			return err
		}
		is = map[int]int{}
		for _, v := range there {
			for _, old := range a.Versions {
				if old.UID == v.UID && !old.Refused {
					is[old.Version] = v.Version
				}
			}
		}
	}
	for _, p := range a.Predictions {
		p.ID, p.PainterID, p.WheelID, p.WheelVersion = 0, r.painter, id, is[p.WheelVersion]
		if p.WheelVersion == 0 {
			continue // of a version that was let go here
		}
		if err := r.tx.Clauses(clause.OnConflict{DoNothing: true}).Create(&p).Error; err != nil {
			return err
		}
	}
	for _, p := range a.Printed {
		p.PainterID, p.WheelID = r.painter, id
		if err := r.tx.Clauses(clause.OnConflict{DoNothing: true}).Create(&p).Error; err != nil {
			return err
		}
	}
	return nil
}
