package main

import (
	"context"
	"errors"
	"fmt"
	"os"
	"os/exec"
	"path/filepath"
	"slices"
	"strings"
	"syscall"
	"time"

	"gyrophane/store"
)

// free is how many bytes are left on the disk that a folder lies on.
func free(folder string) (bytes uint64, known bool) {
	var disk syscall.Statfs_t
	if folder == "" || syscall.Statfs(folder, &disk) != nil {
		return 0, false
	}
	return disk.Bavail * uint64(disk.Bsize), true
}

// watchDisk lets a store look at the disk of its database, where that is on this machine.
func watchDisk(ctx context.Context, s *store.Store) {
	folder, err := s.Folder(ctx)
	if err != nil {
		return // it is not told: nothing is looked at
	}
	s.WatchDisk(func() (uint64, bool) { return free(folder) })
}

// mostDumps is how many dumps are kept.
const mostDumps = 2

// errWaits says that the tables are brought up to date only when somebody says so.
type errWaits struct{ why string }

func (e errWaits) Error() string {
	return "the tables are older than this program, and no copy of them could be kept first: " + e.why + ". Keep one yourself, and start it once with --migrate"
}

// dumpBefore keeps what the database holds, in a folder, before it is brought up to date;
// only the last few are kept. Nothing is done where there is nothing to bring up to date, or
// nothing is held yet. The error is errWaits where no dump could be made.
func dumpBefore(ctx context.Context, s *store.Store, url, folder string) error {
	next, err := s.Pending(ctx)
	if err != nil || next == "" {
		return err
	}
	if err := os.MkdirAll(folder, 0o700); err != nil {
		return errWaits{err.Error()}
	}
	held, err := s.Held(ctx)
	if err != nil {
		return err
	}
	if left, known := free(folder); known && left < 2*uint64(held) {
		return errWaits{fmt.Sprintf("the database holds %d MB, and %s has %d MB left", held>>20, folder, left>>20)}
	}
	file := filepath.Join(folder, fmt.Sprintf("%s-before-%s.dump", time.Now().UTC().Format("20060102-150405"), next))
	if err := dump(ctx, url, file); err != nil {
		return errWaits{err.Error()}
	}
	kept, err := filepath.Glob(filepath.Join(folder, "*-before-*.dump"))
	if err != nil {
		return err
	}
	slices.Sort(kept)
	for _, old := range kept[:max(0, len(kept)-mostDumps)] {
		if err := os.Remove(old); err != nil {
			return fmt.Errorf("an old dump: %w", err)
		}
	}
	return nil
}

// dump writes the database as it is.
func dump(ctx context.Context, url, file string) error {
	part := file + ".part"
	said, err := exec.CommandContext(ctx, "pg_dump", "--format=custom", "--exclude-table-data=upload_pieces", "--file", part, url).CombinedOutput()
	switch {
	case errors.Is(err, exec.ErrNotFound):
		return errors.New("pg_dump is not installed here: install postgresql-client")
	case err != nil:
		_ = os.Remove(part) // there may be none
		return errors.New(strings.TrimSpace(string(said)))
	}
	return errors.Join(os.Chmod(part, 0o600), os.Rename(part, file))
}
