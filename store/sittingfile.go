package store

import (
	"context"
	"encoding/json"
	"fmt"

	"gorm.io/gorm"

	"gyrophane/core/input"
)

// SittingFile is a sitting as one file that another painter opens: its plan with all of its paints, what was told and
// read of it, and what is said of those paints that are tubes. Its photos are not in it.
type SittingFile struct {
	Sitting ArchivedSitting
	Tubes   map[string]CarriedTube // by the ids that they have in the sitting
}

// The format of a sitting in JSON, the version that is written, and how large it may be.
const (
	sittingFormat    = "gyrophane-whole-sitting"
	sittingVersion   = 1
	MostSittingBytes = 16 << 20
)

// sittingFile is the file: its rows are those of a backup.
type sittingFile struct {
	Format  string                 `json:"format"`
	Version int                    `json:"version"`
	Rows    tables                 `json:"rows"`
	Tubes   map[string]CarriedTube `json:"tubes"`
}

// SittingFile is a painter's sitting as a file, with what is said of its tubes; ErrNotFound where it is not there, or
// another painter's.
func (s *Store) SittingFile(ctx context.Context, painter, id int64, said map[string]CarriedTube) ([]byte, error) {
	out := sittingFile{Format: sittingFormat, Version: sittingVersion, Rows: tables{}, Tubes: said}
	err := s.with(ctx, func(db *gorm.DB) error {
		w := &archiveWriter{tx: db, painter: painter}
		for _, p := range sittingParts {
			if p.as == "photos" {
				continue
			}
			rows, err := w.rows(p.table, p.where, p.order, id)
			if err != nil {
				return err
			}
			if out.Rows[p.as] = rows; p.as == "sitting" && len(rows) == 0 {
				return ErrNotFound
			}
		}
		return nil
	})
	if err != nil {
		return nil, err
	}
	data, err := json.MarshalIndent(out, "", " ")
	if err != nil {
		return nil, fmt.Errorf("the sitting could not be written: %w", err)
	}
	return append(data, '\n'), nil
}

// ReadSittingFile reads a file; whether what it holds can be, is not looked at. The error is an input.Error.
func ReadSittingFile(data []byte) (out SittingFile, err error) {
	var f sittingFile
	if err := openFile(data, MostSittingBytes, "sitting's file", sittingFormat, sittingVersion, &f); err != nil {
		return out, err
	}
	if len(f.Tubes) > mostCarried {
		return out, input.Errorf("the file has more than %d paints", mostCarried)
	}
	var a ReadArchive
	if err := a.takeSitting("", f.Rows); err != nil {
		return out, err
	}
	out = SittingFile{Sitting: a.Sittings[0], Tubes: f.Tubes}
	if len(out.Sitting.Photos) > 0 {
		return out, input.Errorf("the file speaks of photos, and has none")
	}
	return out, a.whole()
}

// BringSitting keeps a sitting that came in a file, with tubes that are put into the box for it and their strengths where
// those were learned, all or nothing: refs says what each of its tubes is here. One that is here already is brought up to
// date. The error is a Refusal where there is no room.
func (s *Store) BringSitting(ctx context.Context, painter int64, a *ArchivedSitting, tubes BroughtTubes, refs func(added []Tube) map[string]string, how RestoreHow) (Sitting, error) {
	how.Keep = true
	var out Sitting
	err := s.owned(ctx, painter, func(tx *gorm.DB) error {
		added, err := bringTubes(tx, painter, tubes)
		if err != nil {
			return err
		}
		if err := tx.Exec("select set_config('gyrophane.restoring', 'on', true)").Error; err != nil {
			return err
		}
		r := &restoring{tx: tx, painter: painter, how: how, tubes: refs(added), wheels: map[int64]int64{}, photos: map[int64]int64{}, sittings: map[int64]int64{}}
		if err := r.oneSitting(a, &RestoredKind{}, &RestoredKind{}); err != nil {
			return err
		}
		if r.stray != "" {
			return input.Errorf("the file names %s, and says nothing of it", input.Clip(r.stray))
		}
		if err := r.within(); err != nil {
			return err
		}
		return tx.Where("id = ? and painter_id = ?", r.sittings[a.ID], painter).Take(&out).Error
	})
	return out, unfit(err)
}
