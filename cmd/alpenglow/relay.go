package main

import (
	"context"
	"encoding/json"
	"flag"
	"fmt"
	"net/http"
	"sync"

	"alpenglow/live"

	"github.com/centrifugal/centrifuge"
	"github.com/prometheus/client_golang/prometheus"
	"github.com/prometheus/client_golang/prometheus/collectors"
	"github.com/prometheus/client_golang/prometheus/promhttp"
)

// relay is the yardstick for load: the same realtime library, which passes
// operations on as they come, without rules and without a database.
func relay(ctx context.Context, args []string) error {
	flags := flag.NewFlagSet("relay", flag.ContinueOnError)
	addr := flags.String("addr", "127.0.0.1:8090", "address to listen on")
	if err := flags.Parse(args); err != nil {
		return err
	}
	node, err := centrifuge.New(centrifuge.Config{})
	if err != nil {
		return err
	}
	var mu sync.Mutex
	numbers := map[string]int64{}
	node.OnConnecting(func(ctx context.Context, e centrifuge.ConnectEvent) (centrifuge.ConnectReply, error) {
		var ask live.Connect
		if err := json.Unmarshal(e.Data, &ask); err != nil {
			return centrifuge.ConnectReply{}, centrifuge.DisconnectBadRequest
		}
		return centrifuge.ConnectReply{
			Credentials:   &centrifuge.Credentials{UserID: ask.Session},
			Subscriptions: map[string]centrifuge.SubscribeOptions{ask.Session: {}},
		}, nil
	})
	node.OnConnect(func(c *centrifuge.Client) {
		c.OnRPC(func(e centrifuge.RPCEvent, done centrifuge.RPCCallback) {
			var ask struct {
				Ops []struct {
					ID  string          `json:"id"`
					Add json.RawMessage `json:"add"`
					Set json.RawMessage `json:"set"`
				} `json:"ops"`
			}
			if err := json.Unmarshal(e.Data, &ask); err != nil || len(ask.Ops) != 1 {
				done(centrifuge.RPCReply{}, centrifuge.ErrorBadRequest)
				return
			}
			op := ask.Ops[0]
			if op.Add == nil {
				op.Add = op.Set
			}
			mu.Lock()
			defer mu.Unlock()
			numbers[c.UserID()]++
			seq := numbers[c.UserID()]
			_, err := node.Publish(c.UserID(),
				fmt.Appendf(nil, `{"kind":"changes","changes":{"changes":[{"seq":%d,"op":%q,"put":[%s]}]}}`, seq, op.ID,
					op.Add))
			done(centrifuge.RPCReply{Data: fmt.Appendf(nil, `{"results":[{"seq":%d}]}`, seq)}, err)
		})
	})
	if err := node.Run(); err != nil {
		return err
	}
	registry := prometheus.NewRegistry()
	registry.MustRegister(collectors.NewProcessCollector(collectors.ProcessCollectorOpts{}))
	mux := http.NewServeMux()
	mux.Handle("/realtime", centrifuge.NewWebsocketHandler(node,
		centrifuge.WebsocketConfig{ReadBufferSize: 1024, UseWriteBufferPool: true}))
	mux.Handle("/metrics", promhttp.HandlerFor(registry, promhttp.HandlerOpts{}))
	server := &http.Server{Addr: *addr, Handler: mux}
	go func() {
		<-ctx.Done()
		node.Shutdown(context.WithoutCancel(ctx))
		server.Close()
	}()
	if err := server.ListenAndServe(); err != http.ErrServerClosed {
		return err
	}
	return nil
}
