package store

import (
	"archive/zip"
	"context"
	"crypto/sha256"
	"database/sql"
	"encoding/hex"
	"encoding/json"
	"fmt"
	"io"
	"maps"
	"time"

	"gorm.io/gorm"
	"gorm.io/gorm/schema"

	"gyrophane/core/paint"
)

// Archive is all that is kept of a painter, as one file holds it. What is worked out anew at any time
// (plans), how the painter comes in (passphrase, sessions, codes) and what was put aside is not in it.
type Archive struct {
	Made        time.Time
	Name        string // of the painter
	WarmBlue    string
	OldBox      bool
	Changes     []BoxChange
	Tubes       []ArchivedTube
	Wheels      []ArchivedWheel
	Sittings    []ArchivedSitting
	Takings     []ArchivedTaking
	Rounds      []Round
	Guesses     []PairGuess
	Marks       []ArchivedMark
	Wanted      []WantedColour
	Comparisons []ArchivedComparison
}

// ArchivedTube is a tube with all that it has been through, what could not be saved among it.
type ArchivedTube struct {
	Tube
	Vector   VersionVector
	Versions []TubeVersion
}

// ArchivedWheel is a wheel with all that it has been through, and what was said of it.
type ArchivedWheel struct {
	Wheel
	Beside      string // the wheel that it is another way of; empty for none
	Vector      VersionVector
	Versions    []WheelVersion
	Predictions []Prediction
	Printed     []PrintedPlan
}

// ArchivedSitting is a sitting with all that was told and read of it.
type ArchivedSitting struct {
	Sitting
	Vector   VersionVector
	Events   []SittingEvent
	Readings []SittingReading
	Photos   []SittingPhoto // without their pixels: those are asked for one by one
}

// ArchivedTaking is strengths that were taken.
type ArchivedTaking struct {
	Taking
	Vector VersionVector
}

// ArchivedMark is how far a pairing has come.
type ArchivedMark struct {
	PairMark
	Vector VersionVector
}

// ArchivedComparison is a comparison that was kept.
type ArchivedComparison struct {
	Comparison
	Beside string // the comparison that it is another way of; empty for none
	Vector VersionVector
}

// The format of an archive, and the version that is written.
const (
	archiveFormat  = "gyrophane-backup"
	archiveVersion = 1
)

// manifest is the last entry of an archive, which names all others with their sums.
type manifest struct {
	Format   string      `json:"format"`
	Version  int         `json:"version"`
	Made     time.Time   `json:"made"`
	Library  string      `json:"library"`
	Name     string      `json:"name"`
	WarmBlue string      `json:"warmBlue"`
	OldBox   bool        `json:"oldBox,omitempty"`
	Files    []entryFile `json:"files"`
}

type entryFile struct {
	Name   string `json:"name"`
	Bytes  int64  `json:"bytes"`
	SHA256 string `json:"sha256"`
}

// The entries of an archive besides wheels, sittings and photos: each is rows of tables.
const (
	manifestEntry    = "manifest.json"
	boxEntry         = "box.json"
	strengthsEntry   = "strengths.json"
	practiceEntry    = "practice.json"
	wantedEntry      = "wanted.json"
	comparisonsEntry = "comparisons.json"
)

func wheelEntry(uid string) string   { return "wheels/" + uid + ".json" }
func sittingEntry(uid string) string { return "sittings/" + uid + ".json" }
func photoEntry(uid string) string   { return "photos/" + uid + ".jpg" }

// row is a row of a table by its columns, but for whose it is.
type row = map[string]json.RawMessage

// archiveTime is how long writing or restoring an archive may take.
const archiveTime = 10 * time.Minute

// Backup writes all that is kept of a painter as an archive, as it is at one moment. The painter's wheels and tubes are not held up by it.
func (s *Store) Backup(ctx context.Context, painter int64, to io.Writer) error {
	return limited(ctx, archiveTime, func(ctx context.Context) error {
		return s.db.WithContext(ctx).Transaction(func(tx *gorm.DB) error {
			w := &archiveWriter{zip: zip.NewWriter(to), tx: tx, painter: painter}
			if err := w.all(); err != nil {
				return err
			}
			return w.zip.Close()
		}, &sql.TxOptions{Isolation: sql.LevelRepeatableRead, ReadOnly: true})
	})
}

// archiveWriter writes one archive.
type archiveWriter struct {
	zip     *zip.Writer
	tx      *gorm.DB
	painter int64
	files   []entryFile
}

// beyondModels are the columns of the archive that no row in Go has: the counts of changes, and what a thing is beside.
var beyondModels = map[string]bool{"version_vector": true, "beside_of": true}

// columnsKnown are the columns of a table that this version knows: a later one may have added to them already.
func columnsKnown(table string) (map[string]*schema.Field, error) {
	for _, row := range rows {
		of, err := shapeOf(row)
		if err != nil {
			return nil, err
		}
		if of.Table == table {
			return of.FieldsByDBName, nil
		}
	}
	return nil, fmt.Errorf("no rows of %s are known", table)
}

// rows are the rows of a painter's in a table, without the columns of others' and of large pixels.
func (w *archiveWriter) rows(table, where, order string, values ...any) (out []row, err error) {
	var raw []string
	query := fmt.Sprintf("select (to_jsonb(t) - 'painter_id' - 'jpeg')::text from (select * from %s where painter_id = ? %s) t order by %s", table, where, order)
	if err := w.tx.Raw(query, append([]any{w.painter}, values...)...).Scan(&raw).Error; err != nil {
		return nil, err
	}
	known, err := columnsKnown(table)
	if err != nil {
		return nil, err
	}
	out = []row{}
	for _, one := range raw {
		var r row
		if err := json.Unmarshal([]byte(one), &r); err != nil {
			return nil, fmt.Errorf("a row of %s: %w", table, err)
		}
		maps.DeleteFunc(r, func(column string, _ json.RawMessage) bool { return known[column] == nil && !beyondModels[column] })
		out = append(out, r)
	}
	return out, nil
}

// tables are the rows of several tables, by what they are called in an entry.
type tables map[string][]row

// part asks for the rows of a table of an entry.
type part struct{ as, table, where, order string }

func (w *archiveWriter) put(entry string, parts []part, values ...any) error {
	out := tables{}
	for _, p := range parts {
		rows, err := w.rows(p.table, p.where, p.order, values...)
		if err != nil {
			return err
		}
		out[p.as] = rows
	}
	data, err := json.Marshal(out)
	if err != nil {
		return err
	}
	return w.write(entry, data, zip.Deflate)
}

func (w *archiveWriter) write(entry string, data []byte, method uint16) error {
	into, err := w.zip.CreateHeader(&zip.FileHeader{Name: entry, Method: method})
	if err != nil {
		return err
	}
	if _, err := into.Write(data); err != nil {
		return err
	}
	sum := sha256.Sum256(data)
	w.files = append(w.files, entryFile{entry, int64(len(data)), hex.EncodeToString(sum[:])})
	return nil
}

// What an archive holds, entry by entry.
var (
	boxParts = []part{{"tubes", "tubes", "", "id"}, {"versions", "tube_versions", "", "id"}, {"changes", "box_changes", "", "id"}}

	wheelParts = []part{{"wheel", "wheels", "and id = ?", "id"}, {"versions", "wheel_versions", "and wheel_id = ?", "id"},
		{"predictions", "predictions", "and wheel_id = ?", "id"}, {"printed", "printed_plans", "and wheel_id = ?", "sheet"}}

	sittingParts = []part{{"sitting", "sittings", "and id = ?", "id"}, {"events", "sitting_events", "and sitting_id = ?", "arrived"},
		{"readings", "sitting_readings", "and sitting_id = ?", "id"}, {"photos", "sitting_photos", "and sitting_id = ?", "id"}}

	strengthParts = []part{{"takings", "takings", "", "id"}, {"strengths", "taken_strengths", "", "taking_id, tube_id"}}

	practiceParts = []part{{"rounds", "practice_rounds", "", "id"}, {"guesses", "pair_guesses", "", "id"}, {"marks", "pair_marks", "", "a, b"}}

	wantedParts     = []part{{"wanted", "wanted_colours", "", "id"}}
	comparisonParts = []part{{"comparisons", "comparisons", "", "id"}}
)

func (w *archiveWriter) all() error {
	var p Painter
	if err := w.tx.Where("id = ?", w.painter).Take(&p).Error; err != nil {
		return known(err)
	}
	for _, one := range []struct {
		entry string
		parts []part
	}{{boxEntry, boxParts}, {strengthsEntry, strengthParts}, {practiceEntry, practiceParts}, {wantedEntry, wantedParts}, {comparisonsEntry, comparisonParts}} {
		if err := w.put(one.entry, one.parts); err != nil {
			return err
		}
	}
	for _, one := range []struct {
		table string
		entry func(uid string) string
		parts []part
	}{{"wheels", wheelEntry, wheelParts}, {"sittings", sittingEntry, sittingParts}} {
		var all []struct {
			ID  int64
			UID string
		}
		if err := w.tx.Table(one.table).Select("id, uid").Where("painter_id = ?", w.painter).Order("id").Scan(&all).Error; err != nil {
			return err
		}
		for _, thing := range all {
			if err := w.put(one.entry(thing.UID), one.parts, thing.ID); err != nil {
				return err
			}
		}
	}
	if err := w.photos(); err != nil {
		return err
	}
	data, err := json.MarshalIndent(manifest{archiveFormat, archiveVersion, w.tx.NowFunc(), paint.LibraryVersion(), p.Name, p.WarmBlue, p.OldBox, w.files}, "", " ")
	if err != nil {
		return err
	}
	return w.write(manifestEntry, data, zip.Deflate)
}

// photos writes the pixels of all photos, one after the other.
func (w *archiveWriter) photos() error {
	var ids []int64
	if err := w.tx.Model(&SittingPhoto{}).Where("painter_id = ?", w.painter).Order("id").Pluck("id", &ids).Error; err != nil {
		return err
	}
	for _, id := range ids {
		var p SittingPhoto
		if err := w.tx.Where("id = ? and painter_id = ?", id, w.painter).Take(&p).Error; err != nil {
			return err
		}
		if err := w.write(photoEntry(p.UID), p.JPEG, zip.Store); err != nil {
			return err
		}
	}
	return nil
}

// Belongings are how much is kept of a painter, as a backup counts it.
type Belongings struct {
	Tubes, Wheels, Sittings, Readings, Photos, Takings, Guesses, Comparisons int64
	Bytes                                                                    int64 // about, of its archive
}

// Belongings counts what is kept of a painter.
func (s *Store) Belongings(ctx context.Context, painter int64) (out Belongings, err error) {
	err = s.with(ctx, func(db *gorm.DB) error {
		for _, c := range []struct {
			of    any
			n     *int64
			where string
		}{{&Tube{}, &out.Tubes, "state <> 'withdrawn'"}, {&Wheel{}, &out.Wheels, ""}, {&Sitting{}, &out.Sittings, ""}, {&SittingReading{}, &out.Readings, ""}, {&SittingPhoto{}, &out.Photos, ""},
			{&Taking{}, &out.Takings, ""}, {&PairGuess{}, &out.Guesses, ""}, {&Comparison{}, &out.Comparisons, ""}} {
			q := db.Model(c.of).Where("painter_id = ?", painter)
			if c.where != "" {
				q = q.Where(c.where)
			}
			if err := q.Count(c.n).Error; err != nil {
				return err
			}
		}
		// What the archive packs is about a fifth of what the columns hold; photos stay as they are.
		return db.Raw(`select (select coalesce(sum(octet_length(jpeg)), 0) from sitting_photos where painter_id = @p)
			+ (select coalesce(sum(pg_column_size(plan)), 0) from sittings where painter_id = @p) + (select count(*) * 80 from sitting_events where painter_id = @p)
			+ (select count(*) * 60 from sitting_readings where painter_id = @p) + (select count(*) * 400 from wheel_versions where painter_id = @p)`, sql.Named("p", painter)).Scan(&out.Bytes).Error
	})
	return out, err
}
