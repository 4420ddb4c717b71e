package store

import (
	"context"
	"errors"
	"fmt"
	"io"
	"time"

	"gorm.io/gorm"
)

// Upload is a file that a painter sends piece by piece, one at a time; it lies in the database until it was taken in,
// so that any server may receive the next piece.
type Upload struct {
	PainterID int64 `gorm:"primaryKey"`
	Bytes     int64 // that it will have
	Have      int64
	CreatedAt time.Time
}

// UploadPiece is a piece of it.
type UploadPiece struct {
	PainterID int64 `gorm:"primaryKey"`
	Number    int64 `gorm:"primaryKey"`
	Data      []byte
}

// The limits of uploads.
const (
	PieceBytes    = 1 << 20 // each but the last has so many
	mostUploading = 4 << 30 // bytes, of all painters
	uploadStays   = time.Hour
)

// Receive takes a piece of a painter's upload that begins at a place of it; the first one begins it anew. What is there
// already changes nothing. It says how much is there.
func (s *Store) Receive(ctx context.Context, painter, at, bytes int64, data []byte) (have int64, err error) {
	switch {
	case bytes <= 0 || bytes > MostArchiveBytes:
		return 0, Refusal{fmt.Sprintf("A backup of %d MB is more than is taken in: %d MB is the most.", bytes>>20, MostArchiveBytes>>20)}
	case at < 0 || at%PieceBytes != 0 || at >= bytes || int64(len(data)) != min(PieceBytes, bytes-at):
		return 0, Refusal{"This piece is none of the file: send it from the beginning."}
	}
	err = s.owned(ctx, painter, func(tx *gorm.DB) error {
		if at == 0 {
			if err := tx.Where("painter_id = ? or created_at < ?", painter, tx.NowFunc().Add(-uploadStays)).Delete(&Upload{}).Error; err != nil {
				return err
			}
			var all int64
			if err := tx.Model(&Upload{}).Select("coalesce(sum(bytes), 0)").Scan(&all).Error; err != nil {
				return err
			}
			left, known := s.freeDisk()
			if all+bytes > mostUploading || known && left < s.Room.Free+uint64(bytes) {
				return Refusal{"There is no room for a backup on this server just now: try again in an hour, or ask whoever looks after it."}
			}
			if err := tx.Create(&Upload{PainterID: painter, Bytes: bytes}).Error; err != nil {
				return err
			}
		}
		var u Upload
		if err := tx.Where("painter_id = ?", painter).Limit(1).Find(&u).Error; err != nil {
			return err
		}
		have = u.Have
		if u.Bytes != bytes || at > u.Have {
			return Refusal{"The pieces before this one are not there any more: send the file from the beginning."}
		}
		if at < u.Have {
			return nil // it came once already
		}
		if err := tx.Create(&UploadPiece{painter, at / PieceBytes, data}).Error; err != nil {
			return err
		}
		have = at + int64(len(data))
		return tx.Model(&Upload{}).Where("painter_id = ?", painter).Update("have", have).Error
	})
	return have, err
}

// DropUpload lets a painter's upload go.
func (s *Store) DropUpload(ctx context.Context, painter int64) error {
	return s.with(ctx, func(db *gorm.DB) error { return db.Where("painter_id = ?", painter).Delete(&Upload{}).Error })
}

// Uploaded is a painter's upload, whole, to be read at any place; ErrNotFound where it is not there.
func (s *Store) Uploaded(ctx context.Context, painter int64) (from io.ReaderAt, bytes int64, err error) {
	var u Upload
	err = s.with(ctx, func(db *gorm.DB) error {
		return known(db.Where("painter_id = ? and have = bytes", painter).Take(&u).Error)
	})
	return &uploadReader{ctx: ctx, store: s, painter: painter, bytes: u.Bytes, at: -1}, u.Bytes, err
}

// uploadReader reads an upload; the piece that was read last is at hand. It is for one reader at a time.
type uploadReader struct {
	ctx     context.Context
	store   *Store
	painter int64
	bytes   int64
	at      int64 // the piece at hand
	piece   []byte
}

// ReadAt is for io.ReaderAt.
func (r *uploadReader) ReadAt(into []byte, from int64) (n int, err error) {
	for n < len(into) {
		if from >= r.bytes {
			return n, io.EOF
		}
		if number := from / PieceBytes; number != r.at {
			var p UploadPiece
			err := r.store.with(r.ctx, func(db *gorm.DB) error {
				return known(db.Where("painter_id = ? and number = ?", r.painter, number).Take(&p).Error)
			})
			if errors.Is(err, ErrNotFound) {
				return n, io.ErrUnexpectedEOF
			}
			if err != nil {
				return n, err
			}
			r.at, r.piece = number, p.Data
		}
		done := copy(into[n:], r.piece[min(from%PieceBytes, int64(len(r.piece))):])
		if done == 0 {
			return n, io.ErrUnexpectedEOF
		}
		n, from = n+done, from+int64(done)
	}
	return n, nil
}
