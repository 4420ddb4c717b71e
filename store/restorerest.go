package store

import (
	"cmp"
	"slices"

	"gorm.io/gorm/clause"

	"gyrophane/core/input"
	"gyrophane/core/journal"
)

// practice takes in rounds of practice and guesses.
func (r *restoring) practice() error {
	for _, round := range r.from.Rounds {
		now, found, err := find[Round](r, round.UID)
		if err != nil {
			return err
		}
		was := round.ID
		if found {
			r.rounds[was] = now.ID
			if round.Ended && !now.Ended {
				if err := r.tx.Model(&Round{ID: now.ID}).Where("painter_id = ?", r.painter).UpdateColumn("ended", true).Error; err != nil {
					return err
				}
			}
			continue
		}
		round.ID, round.PainterID = 0, r.painter
		for i, c := range round.Pairs {
			round.Pairs[i] = Couple{r.tube(c.A), r.tube(c.B)}
		}
		if err := r.tx.Create(&round).Error; err != nil {
			return err
		}
		r.rounds[was] = round.ID
	}
	kind := r.kind("guesses")
	for _, g := range r.from.Guesses {
		r.seen()
		_, found, err := find[PairGuess](r, g.UID)
		if err != nil {
			return err
		}
		if found {
			kind.Stay++
			continue
		}
		g.ID, g.PainterID, g.A, g.B, g.Key = 0, r.painter, r.tube(g.A), r.tube(g.B), journal.PairKeyWith(g.Key, r.tube)
		if g.RoundID != nil {
			round, known := r.rounds[*g.RoundID]
			if !known {
				return input.Errorf("the backup has a guess of a round that is not in it")
			}
			g.RoundID = &round
		}
		made := r.tx.Clauses(clause.OnConflict{DoNothing: true}).Create(&g)
		if made.Error != nil {
			return made.Error
		}
		kind.Added += int(made.RowsAffected)
		kind.Stay += 1 - int(made.RowsAffected) // it was guessed here too, and one guess counts
	}
	return nil
}

// marks takes in how far pairings have come; of one that went two ways what is here stays.
func (r *restoring) marks() error {
	kind := r.kind("marked pairings")
	for _, m := range r.from.Marks {
		r.seen()
		m.PainterID = r.painter
		a, b := r.tube(m.A), r.tube(m.B)
		c := MarkChange{A: a, B: b}.ordered()
		m.A, m.B = c.A, c.B
		var raw []string
		if err := r.tx.Raw("select version_vector::text from pair_marks where painter_id = ? and a = ? and b = ?", r.painter, m.A, m.B).Scan(&raw).Error; err != nil {
			return err
		}
		vector := VersionVector{}
		if len(raw) > 0 {
			var err error
			if vector, err = parseVector(raw[0]); err != nil {
				return err
			}
			if m.Vector.Against(vector) != Newer {
				kind.Stay++
				continue
			}
			kind.Updated++
		} else {
			kind.Added++
		}
		if err := r.tx.Exec(`insert into pair_marks (painter_id, a, b, mark, updated_at, version_vector) values (?, ?, ?, ?, ?, ?)
			on conflict (painter_id, a, b) do update set mark = excluded.mark, updated_at = excluded.updated_at, version_vector = excluded.version_vector`,
			r.painter, m.A, m.B, m.Mark, m.UpdatedAt, vector.With(m.Vector).text()).Error; err != nil {
			return err
		}
	}
	return nil
}

func (r *restoring) wanted() error {
	kind := r.kind("wanted colours")
	for _, w := range r.from.Wanted {
		r.seen()
		_, found, err := find[WantedColour](r, w.UID)
		if err != nil {
			return err
		}
		if found {
			kind.Stay++
			continue
		}
		kind.Added++
		w.ID, w.PainterID = 0, r.painter
		if err := r.tx.Create(&w).Error; err != nil {
			return err
		}
	}
	return nil
}

// comparisonHere is a comparison, or another way of it, that is there.
type comparisonHere struct {
	Comparison `gorm:"embedded"`
	Vector     string `gorm:"column:version_vector"`
}

func (r *restoring) comparisons() error {
	kind := r.kind("comparisons")
	for i := range r.from.Comparisons {
		r.seen()
		if err := r.oneComparison(&r.from.Comparisons[i], kind); err != nil {
			return err
		}
	}
	return nil
}

func (r *restoring) oneComparison(a *ArchivedComparison, kind *RestoredKind) error {
	c := a.Comparison
	c.PainterID, c.Address = r.painter, addressWith(c.Address, func(id int64) int64 { return r.wheels[id] })
	of := cmp.Or(a.Beside, a.UID)
	var there []comparisonHere
	if err := r.tx.Table("comparisons").Where("painter_id = ? and (uid = ? or beside_of = ?)", r.painter, of, of).Order("id").Find(&there).Error; err != nil {
		return err
	}
	var later *comparisonHere
	for n := range there {
		vector, err := parseVector(there[n].Vector)
		if err != nil {
			return err
		}
		order := a.Vector.Against(vector)
		if order == Same && (c.Note != there[n].Note || c.Decision != there[n].Decision) {
			order = TwoWays
		}
		switch order {
		case Same, Older:
			kind.Stay++
			return nil
		case Newer:
			later = &there[n]
		}
	}
	if later != nil {
		kind.Updated++
		if err := r.tx.Model(&Comparison{ID: later.ID}).Where("painter_id = ?", r.painter).UpdateColumns(map[string]any{"note": c.Note, "decision": c.Decision, "version": max(c.Version, later.Version+1), "updated_at": c.UpdatedAt}).Error; err != nil {
			return err
		}
		return r.count("comparisons", later.ID, a.Vector)
	}
	beside := a.Beside
	c.ID = 0
	if slices.ContainsFunc(there, func(h comparisonHere) bool { return h.UID == c.UID }) {
		kind.Beside = append(kind.Beside, cmp.Or(c.Note, c.Decision, "without words"))
		beside, c.UID, c.Told = of, "", ""
	} else {
		kind.Added++
	}
	if err := r.tx.Create(&c).Error; err != nil {
		return err
	}
	if err := r.tx.Exec("update comparisons set beside_of = ? where id = ?", orNil(beside), c.ID).Error; err != nil {
		return err
	}
	return r.count("comparisons", c.ID, a.Vector)
}
