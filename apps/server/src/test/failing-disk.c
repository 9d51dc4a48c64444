/*
 * A disk that fails once: loaded before libc (LD_PRELOAD), it counts every call that writes below DISK_FOLDER, from the
 * moment that a file named ARM is written there, and lets the DISK_AT-th fail: full, broken, or with the process gone
 * in its middle. How many calls there were stands in DISK_COUNT when the process ends by itself.
 */
#define _GNU_SOURCE
#include <dlfcn.h>
#include <errno.h>
#include <fcntl.h>
#include <signal.h>
#include <stdio.h>
#include <stdlib.h>
#include <string.h>
#include <sys/types.h>
#include <unistd.h>

static int armed, calls;

static void count(void) __attribute__((destructor));
static void count(void) {
  const char *path = getenv("DISK_COUNT");
  FILE *out = path ? fopen(path, "w") : NULL;
  if (out) {
    fprintf(out, "%d", calls);
    fclose(out);
  }
}

/* What this call must fail with; 0: nothing. */
static int fails(const char *path) {
  const char *folder = getenv("DISK_FOLDER"), *at = getenv("DISK_AT"), *as = getenv("DISK_AS");
  if (!folder || strncmp(path, folder, strlen(folder)) != 0) return 0;
  if (strcmp(path + strlen(path) - 3, "ARM") == 0) armed = 1;
  if (!armed) return 0;
  calls += 1;
  if (!at || calls != atoi(at) || !as) return 0;
  if (strcmp(as, "KILL") == 0) kill(getpid(), SIGKILL);
  return strcmp(as, "EIO") == 0 ? EIO : ENOSPC;
}

static int fails_at(int fd) {
  char link[64], path[4096];
  snprintf(link, sizeof link, "/proc/self/fd/%d", fd);
  ssize_t length = readlink(link, path, sizeof path - 1);
  if (length < 4) return 0;
  path[length] = 0;
  return fails(path);
}

#define REAL(name) ((typeof(&name))dlsym(RTLD_NEXT, #name))
#define FAILING(check) do { int why = check; if (why) { errno = why; return -1; } } while (0)

ssize_t write(int fd, const void *from, size_t bytes) { FAILING(fails_at(fd)); return REAL(write)(fd, from, bytes); }
ssize_t pwrite(int fd, const void *from, size_t bytes, off_t at) { FAILING(fails_at(fd)); return REAL(pwrite)(fd, from, bytes, at); }
ssize_t pwrite64(int fd, const void *from, size_t bytes, off64_t at) { FAILING(fails_at(fd)); return REAL(pwrite64)(fd, from, bytes, at); }
int fsync(int fd) { FAILING(fails_at(fd)); return REAL(fsync)(fd); }
int fdatasync(int fd) { FAILING(fails_at(fd)); return REAL(fdatasync)(fd); }
int ftruncate(int fd, off_t to) { FAILING(fails_at(fd)); return REAL(ftruncate)(fd, to); }
int ftruncate64(int fd, off64_t to) { FAILING(fails_at(fd)); return REAL(ftruncate64)(fd, to); }
int rename(const char *from, const char *to) { FAILING(fails(from)); return REAL(rename)(from, to); }
ssize_t copy_file_range(int in, off64_t *from, int out, off64_t *to, size_t bytes, unsigned flags) {
  FAILING(fails_at(out));
  return REAL(copy_file_range)(in, from, out, to, bytes, flags);
}
ssize_t sendfile(int out, int in, off_t *from, size_t bytes) { FAILING(fails_at(out)); return REAL(sendfile)(out, in, from, bytes); }
