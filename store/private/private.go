// Package private starts a PostgreSQL cluster of one's own on loopback, for
// the demo, the tests and the benchmarks. It needs PostgreSQL's programs on
// the machine, not a running server, and works as root and as any user.
package private

import (
	"bytes"
	"context"
	"errors"
	"fmt"
	"net"
	"os"
	"os/exec"
	"os/user"
	"path/filepath"
	"runtime"
	"slices"
	"strconv"
	"strings"
	"syscall"
	"time"

	"github.com/jackc/pgx/v5"
)

// Cluster is a running private cluster.
type Cluster struct {
	// URL connects to its database "alpenglow".
	URL string
	// PID is the process id of the server.
	PID int
	// Port is where it listens.
	Port  int
	cmd   *exec.Cmd
	ended chan struct{} // closed when the server has ended
}

// Options say how a cluster is run.
type Options struct {
	// Dir holds the data; it is made when it is not there.
	Dir string
	// Fast gives up safety against power cuts, and looks after many small databases that soon go, for tests.
	Fast bool
	// Port is where it listens; 0 for any free one.
	Port int
}

// Start makes the cluster if needed and starts it on a free port. It stays up
// until Stop, or until this process ends.
func Start(ctx context.Context, o Options) (*Cluster, error) {
	bin, err := programs()
	if err != nil {
		return nil, err
	}
	run, err := unprivileged()
	if err != nil {
		return nil, err
	}
	// The folders above must be open to the user that PostgreSQL runs as.
	if err := os.MkdirAll(filepath.Dir(o.Dir), 0o755); err != nil {
		return nil, fmt.Errorf("private cluster: %w", err)
	}
	if err := os.Mkdir(o.Dir, 0o700); err != nil && !errors.Is(err, os.ErrExist) {
		return nil, fmt.Errorf("private cluster: %w", err)
	}
	if run.credential != nil {
		if err := os.Chown(o.Dir, int(run.credential.Uid), int(run.credential.Gid)); err != nil {
			return nil, fmt.Errorf("private cluster: %w", err)
		}
	}
	if _, err := os.Stat(filepath.Join(o.Dir, "PG_VERSION")); errors.Is(err, os.ErrNotExist) {
		initdb := run.command(bin, "initdb", "-D", o.Dir, "-U", "alpenglow", "-A", "trust", "-E", "UTF8",
			"--locale=C.UTF-8", "--no-sync")
		if out, err := initdb.CombinedOutput(); err != nil {
			return nil, fmt.Errorf("initdb: %w: %s", err, bytes.TrimSpace(out))
		}
	}
	port := o.Port
	if port == 0 {
		if port, err = freePort(); err != nil {
			return nil, fmt.Errorf("private cluster: %w", err)
		}
	}
	set := []string{"listen_addresses=127.0.0.1", "unix_socket_directories=", "max_connections=200",
		"shared_buffers=256MB", "max_wal_size=2GB", "log_min_messages=fatal"}
	if o.Fast {
		set = append(set, "fsync=off", "full_page_writes=off", "max_connections=600", "autovacuum=off")
	}
	args := []string{"-D", o.Dir, "-p", strconv.Itoa(port)}
	for _, one := range set {
		args = append(args, "-c", one)
	}
	c := &Cluster{Port: port, ended: make(chan struct{}), cmd: run.command(bin, "postgres", args...)}
	var said bytes.Buffer
	c.cmd.Stderr = &said
	started := make(chan error)
	go func() {
		// The server ends with the thread that started it (Pdeathsig), so
		// that thread is kept for as long as this process lives.
		runtime.LockOSThread()
		started <- c.cmd.Start()
		select {}
	}()
	if err := <-started; err != nil {
		return nil, fmt.Errorf("private cluster: %w", err)
	}
	go func() {
		c.cmd.Wait()
		close(c.ended)
	}()
	c.PID = c.cmd.Process.Pid
	c.URL = c.url("alpenglow")
	if err := c.ready(ctx); err != nil {
		c.Stop()
		return nil, fmt.Errorf("private cluster: %w: %s", err, bytes.TrimSpace(said.Bytes()))
	}
	return c, nil
}

func (c *Cluster) url(database string) string {
	return fmt.Sprintf("postgres://alpenglow@127.0.0.1:%d/%s?sslmode=disable", c.Port, database)
}

// ready waits until the cluster answers and has its database.
func (c *Cluster) ready(ctx context.Context) error {
	ctx, cancel := context.WithTimeout(ctx, 30*time.Second)
	defer cancel()
	for {
		err := c.Create(ctx, "alpenglow")
		if err == nil {
			return nil
		}
		select {
		case <-c.ended:
			return errors.New("PostgreSQL has ended at once")
		case <-ctx.Done():
			return err
		case <-time.After(50 * time.Millisecond):
		}
	}
}

// Create makes a database when it is not there; its URL is that of the
// cluster with the other name.
func (c *Cluster) Create(ctx context.Context, database string) error {
	conn, err := pgx.Connect(ctx, c.url("postgres"))
	if err != nil {
		return err
	}
	defer conn.Close(ctx)
	var there bool
	if err := conn.QueryRow(ctx, `SELECT EXISTS (SELECT FROM pg_database WHERE datname = $1)`,
		database).Scan(&there); err != nil || there {
		return err
	}
	_, err = conn.Exec(ctx, `CREATE DATABASE `+pgx.Identifier{database}.Sanitize())
	return err
}

// New makes an empty database with the given name and returns its URL.
func (c *Cluster) New(ctx context.Context, database string) (string, error) {
	return c.url(database), c.Create(ctx, database)
}

// Stop ends the cluster in good order and waits for it.
func (c *Cluster) Stop() error {
	// SIGINT is a fast shutdown: running transactions are rolled back.
	if err := c.cmd.Process.Signal(syscall.SIGINT); err != nil && !errors.Is(err, os.ErrProcessDone) {
		return err
	}
	<-c.ended
	return nil
}

// programs finds the folder of PostgreSQL's programs, the newest version first.
func programs() (string, error) {
	if at, err := exec.LookPath("initdb"); err == nil {
		return filepath.Dir(at), nil
	}
	found, _ := filepath.Glob("/usr/lib/postgresql/*/bin/initdb")
	if len(found) == 0 {
		return "", errors.New("PostgreSQL is not installed: on Debian, apt-get install postgresql")
	}
	slices.SortFunc(found, func(a, b string) int { return version(b) - version(a) })
	return filepath.Dir(found[0]), nil
}

func version(initdb string) int {
	n, _ := strconv.Atoi(filepath.Base(filepath.Dir(filepath.Dir(initdb))))
	return n
}

// runner runs PostgreSQL's programs, which refuse to run as root, as the user
// postgres when this process is root's.
type runner struct{ credential *syscall.Credential }

func unprivileged() (runner, error) {
	if os.Getuid() != 0 {
		return runner{}, nil
	}
	u, err := user.Lookup("postgres")
	if err != nil {
		return runner{}, fmt.Errorf("running as root needs the user postgres: %w", err)
	}
	uid, _ := strconv.Atoi(u.Uid)
	gid, _ := strconv.Atoi(u.Gid)
	return runner{&syscall.Credential{Uid: uint32(uid), Gid: uint32(gid)}}, nil
}

func (r runner) command(bin, name string, args ...string) *exec.Cmd {
	cmd := exec.Command(filepath.Join(bin, name), args...)
	cmd.Dir = "/"
	cmd.Env = []string{"LC_ALL=C.UTF-8", "PATH=" + bin + ":/usr/bin:/bin"}
	// Its own process group, so that Ctrl-C reaches this process alone, which
	// then stops it; and it ends when this process is killed.
	cmd.SysProcAttr = &syscall.SysProcAttr{Credential: r.credential, Setpgid: true, Pdeathsig: syscall.SIGINT}
	return cmd
}

// Readable gives a folder for data under the wanted one, or, when the user
// that PostgreSQL runs as could not reach it, a private one elsewhere that
// belongs to the wanted one alone.
func Readable(wanted string) (string, error) {
	wanted, err := filepath.Abs(wanted)
	if err != nil || os.Getuid() != 0 {
		return wanted, err
	}
	for at := filepath.Dir(wanted); at != "/"; at = filepath.Dir(at) {
		if info, err := os.Stat(at); err == nil && info.Mode().Perm()&0o001 == 0 {
			return filepath.Join("/var/tmp", "alpenglow"+strings.ReplaceAll(wanted, "/", "-")), nil
		}
	}
	return wanted, nil
}

func freePort() (int, error) {
	l, err := net.Listen("tcp", "127.0.0.1:0")
	if err != nil {
		return 0, err
	}
	defer l.Close()
	return l.Addr().(*net.TCPAddr).Port, nil
}
