package store

import (
	"encoding/json"
	"fmt"

	"gorm.io/gorm"

	"gyrophane/core/paint"
)

// The versions of the library on either side of the one scale of strength.
const (
	beforeOneScale = "2026.3"
	firstOneScale  = "2026.4"
)

// rescale makes the strengths that were taken of tubes of library paints what they are in another
// version of the library, with their intervals and all that went before, and gives the tubes theirs.
func rescale(tx *gorm.DB, from, to string) error {
	var rows []struct {
		TakingID, TubeID         int64
		Library                  string
		Was, Strength, Low, High float64
	}
	if err := tx.Raw(`select s.taking_id, s.tube_id, t.definition->>'library' as library, s.was, s.strength, s.low, s.high
		from taken_strengths s join tubes t on t.id = s.tube_id where coalesce(t.definition->>'library', '') <> '' order by 1, 2`).Scan(&rows).Error; err != nil {
		return err
	}
	for _, row := range rows {
		for _, v := range []*float64{&row.Was, &row.Strength, &row.Low, &row.High} {
			if *v <= 0 {
				continue // it is not known
			}
			is, _, err := paint.StrengthIn(row.Library, from, to, *v)
			if err != nil {
				return fmt.Errorf("tube %d: %w", row.TubeID, err)
			}
			*v = paint.BoundedStrength(is)
		}
		if err := tx.Exec(`update taken_strengths set was = ?, strength = ?, low = ?, high = ?, library = ? where taking_id = ? and tube_id = ?`,
			row.Was, row.Strength, row.Low, row.High, to, row.TakingID, row.TubeID).Error; err != nil {
			return err
		}
	}
	return tx.Exec(`update tubes set learned = (
		select s.strength from taken_strengths s join takings t on t.id = s.taking_id
		where s.tube_id = tubes.id and t.undone_at is null order by t.id desc limit 1)
		where learned is not null`).Error
}

// nameVersions says of the library paints of sittings which version they are of, where nothing does.
func nameVersions(tx *gorm.DB, version string) error {
	var rows []struct {
		ID   int64
		Plan string
	}
	if err := tx.Raw(`select id, plan from sittings order by id`).Scan(&rows).Error; err != nil {
		return err
	}
	for _, row := range rows {
		var plan map[string]json.RawMessage
		var paints map[string]map[string]json.RawMessage
		if err := json.Unmarshal([]byte(row.Plan), &plan); err != nil {
			return fmt.Errorf("sitting %d: %w", row.ID, err)
		}
		if len(plan["paints"]) == 0 || json.Unmarshal(plan["paints"], &paints) != nil {
			continue // of before paints were kept with it
		}
		changed := false
		for _, p := range paints {
			var d map[string]any
			if json.Unmarshal(p["definition"], &d) != nil || d["library"] == nil || d["library"] == "" || d["of"] != nil && d["of"] != "" {
				continue
			}
			d["of"] = version
			named, err := json.Marshal(d)
			if err != nil {
				return err
			}
			p["definition"], changed = named, true
		}
		if !changed {
			continue
		}
		all, err := json.Marshal(paints)
		if err != nil {
			return err
		}
		plan["paints"] = all
		whole, err := json.Marshal(plan)
		if err != nil {
			return err
		}
		if err := tx.Exec(`update sittings set plan = ? where id = ?`, string(whole), row.ID).Error; err != nil {
			return err
		}
	}
	return nil
}
