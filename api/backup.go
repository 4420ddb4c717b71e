package api

import (
	"bufio"
	"context"
	"encoding/json"
	"fmt"
	"io"
	"net"
	"net/http"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/valyala/fasthttp"

	"gyrophane/core/input"
	"gyrophane/jobs"
	"gyrophane/store"
	"gyrophane/studio"
	"gyrophane/wire"
)

// belongings count what is kept of the painter.
func (s *Server) belongings(ctx context.Context, _ *struct{}) (wire.Belongings, error) {
	b, err := s.studio.Belongings(ctx, painter(ctx))
	return wire.BelongingsOf(b, studio.BackupName(painter(ctx), s.store.Now())), err
}

// How many backups are written at once, how long one may take, and how long one that has stopped is waited for.
const (
	mostBackups = 4
	backupTime  = 10 * time.Minute
	stillness   = 30 * time.Second
)

// backup streams all that is kept of the painter as one file. One that could not be written to its end is broken off, so
// that nobody takes it for whole.
func (s *Server) backup(ctx context.Context, _ *struct{}) (*huma.StreamResponse, error) {
	select {
	case s.backups <- struct{}{}:
	default:
		return nil, huma.Error429TooManyRequests("Several backups are being written just now; try again in a minute.")
	}
	who := painter(ctx)
	return &huma.StreamResponse{Body: func(h huma.Context) {
		h.SetHeader("Content-Type", "application/zip")
		h.SetHeader("Cache-Control", "no-store")
		h.SetHeader("Content-Disposition", fmt.Sprintf("attachment; filename=%q", studio.BackupName(who, s.store.Now())))
		request, _ := ctx.Value(requestKey{}).(*fasthttp.RequestCtx)
		conn := request.Conn()
		request.SetBodyStreamWriter(func(w *bufio.Writer) {
			defer func() { <-s.backups }()
			writing, end := context.WithTimeout(context.Background(), backupTime)
			defer end()
			if err := s.studio.Backup(writing, who, &patient{w, conn}); err != nil {
				s.Log.Error("a backup was broken off", "error", err.Error())
				_ = conn.Close() // so that it is seen
			}
		})
	}}, nil
}

// patient writes for as long as somebody reads.
type patient struct {
	to   io.Writer
	conn net.Conn
}

func (p *patient) Write(data []byte) (int, error) {
	if err := p.conn.SetWriteDeadline(time.Now().Add(stillness)); err != nil {
		return 0, err
	}
	return p.to.Write(data)
}

type receiveInput struct {
	At      int64 `query:"at" minimum:"0" doc:"where the piece begins: a multiple of 1 MB; 0 begins anew"`
	Bytes   int64 `query:"bytes" required:"true" minimum:"1" doc:"of the whole file"`
	RawBody []byte
}

// Received says how much of a backup is there.
type Received struct {
	Have int64 `json:"have" doc:"bytes"`
}

func (s *Server) receiveBackup(ctx context.Context, in *receiveInput) (*struct{ Body Received }, error) {
	if in.At == 0 {
		if err := s.jobs.End(ctx, painter(ctx).ID, restoreKind, ""); err != nil {
			return nil, err
		}
	}
	have, err := s.studio.Receive(ctx, painter(ctx), in.At, in.Bytes, in.RawBody)
	return &struct{ Body Received }{Received{have}}, err
}

type beginRestoringInput struct {
	Body struct {
		Keep bool `json:"keep" doc:"take it in; otherwise only say what would become of it"`
	}
}

func (s *Server) beginRestoring(ctx context.Context, in *beginRestoringInput) (*struct{ Body wire.Restoring }, error) {
	who := painter(ctx)
	if err := s.studio.Sent(ctx, who); err != nil {
		return nil, err
	}
	switch at, _, err := s.jobs.Look(ctx, who.ID, restoreKind, ""); {
	case err != nil:
		return nil, err
	case at.Under:
		return nil, input.Errorf("A backup is being looked at already: wait for it, or leave it.")
	}
	args, err := json.Marshal(in.Body)
	if err != nil {
		return nil, err
	}
	if err := s.jobs.End(ctx, who.ID, restoreKind, ""); err != nil {
		return nil, err
	}
	if _, err := s.jobs.Begin(ctx, jobs.Job{Painter: who.ID, Kind: restoreKind, Args: args, Apart: true}); err != nil {
		return nil, err
	}
	return s.restoring(ctx, nil)
}

// restoreKind is what taking in a backup is as a job.
const restoreKind = "restore"

// restore looks at the backup that a painter sent, or takes it in.
func (s *Server) restore(ctx context.Context, id int64, args []byte, say func(jobs.Progress)) ([]byte, error) {
	in := beginRestoringInput{}
	if err := json.Unmarshal(args, &in.Body); err != nil {
		return nil, err
	}
	who, err := s.store.PainterByID(ctx, id)
	if err == nil {
		var came studio.Restored
		if came, err = s.studio.RestoreSent(ctx, who, in.Body.Keep, func(done, of int) { say(jobs.Progress{Done: done, Of: of}) }); err == nil {
			return answered(came)
		}
	}
	return s.refused(err)
}

// restoring is how far a painter's backup is.
func (s *Server) restoring(ctx context.Context, _ *struct{}) (*struct{ Body wire.Restoring }, error) {
	at, known, err := s.jobs.Look(ctx, painter(ctx).ID, restoreKind, "")
	if err != nil {
		return nil, err
	}
	var in beginRestoringInput
	var came studio.Restored
	if known {
		err = json.Unmarshal(at.Args, &in.Body)
	}
	if err == nil && known && !at.Under {
		if err = at.Err; err == nil {
			err = outcomeOf(at.Result, &came)
		}
	}
	refused := ""
	if err != nil {
		refused = s.refusal(err).Error()
	}
	return &struct{ Body wire.Restoring }{wire.RestoringOf(wire.RestoringAt{Known: known, Under: at.Under, Keep: in.Body.Keep, Done: at.Done, Of: at.Of, Came: came, Refused: refused})}, nil
}

func (s *Server) leaveRestoring(ctx context.Context, _ *struct{}) (*struct{}, error) {
	if err := s.jobs.End(ctx, painter(ctx).ID, restoreKind, ""); err != nil {
		return nil, err
	}
	return nil, s.studio.DropSent(ctx, painter(ctx))
}

func (s *Server) backupRoutes() {
	s.jobs.Handle(restoreKind, backupLine, restoreTime, s.restore)
	register(s, huma.Operation{OperationID: "belongings", Tags: []string{"backup"}, Summary: "How much is kept of the painter", Method: http.MethodGet, Path: "/api/mine"}, bodied(s.belongings))
	register(s, huma.Operation{OperationID: "backup", Tags: []string{"backup"}, Summary: "All that is kept of the painter as one file", Method: http.MethodGet, Path: "/api/mine/backup"}, s.backup)
	register(s, huma.Operation{OperationID: "receiveBackup", Tags: []string{"backup"}, Summary: "Takes a piece of a backup that is to be taken in, one after the other", Method: http.MethodPost, Path: filesBelow + "backup", MaxBodyBytes: store.PieceBytes + 1<<10}, s.receiveBackup)
	register(s, huma.Operation{OperationID: "beginRestoring", Tags: []string{"backup"}, Summary: "Looks at the backup that was sent, or takes it in: that goes on by itself", Method: http.MethodPost, Path: "/api/mine/restoring"}, s.beginRestoring)
	register(s, huma.Operation{OperationID: "restoring", Tags: []string{"backup"}, Summary: "How far the backup is that was sent", Method: http.MethodGet, Path: "/api/mine/restoring"}, s.restoring)
	register(s, huma.Operation{OperationID: "leaveRestoring", Tags: []string{"backup"}, Summary: "Leaves the backup that was sent, and lets it go", Method: http.MethodDelete, Path: "/api/mine/restoring"}, s.leaveRestoring)
}
