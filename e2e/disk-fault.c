/*
 * Loaded into a server under test: while the file named by DISK_FAULT holds a word, what is written below the folder named by
 * DISK_FAULT_BELOW fails as on such a disk. Faults: full (ENOSPC), read-only (EROFS), broken (EIO).
 */
#define _GNU_SOURCE
#include <dlfcn.h>
#include <errno.h>
#include <fcntl.h>
#include <limits.h>
#include <stdio.h>
#include <stdlib.h>
#include <string.h>
#include <sys/syscall.h>
#include <unistd.h>

static int fault(int fd) {
  const char *file = getenv("DISK_FAULT"), *below = getenv("DISK_FAULT_BELOW");
  if (!file || !below) return 0;
  char link[64], path[PATH_MAX];
  snprintf(link, sizeof link, "/proc/self/fd/%d", fd);
  long length = syscall(SYS_readlink, link, path, sizeof path - 1);
  if (length < 0) return 0;
  path[length] = 0;
  if (strncmp(path, below, strlen(below)) != 0) return 0;
  char word[16] = {0};
  long open_fd = syscall(SYS_openat, AT_FDCWD, file, O_RDONLY);
  if (open_fd < 0) return 0;
  syscall(SYS_read, open_fd, word, sizeof word - 1);
  syscall(SYS_close, open_fd);
  if (strncmp(word, "full", 4) == 0) return ENOSPC;
  if (strncmp(word, "read-only", 9) == 0) return EROFS;
  if (strncmp(word, "broken", 6) == 0) return EIO;
  return 0;
}

#define GUARD(fd) do { int e = fault(fd); if (e) { errno = e; return -1; } } while (0)
#define NEXT(name) ((__typeof__(&name))dlsym(RTLD_NEXT, #name))

ssize_t pwrite64(int fd, const void *data, size_t size, off64_t at) { GUARD(fd); return NEXT(pwrite64)(fd, data, size, at); }
ssize_t pwrite(int fd, const void *data, size_t size, off_t at) { GUARD(fd); return NEXT(pwrite)(fd, data, size, at); }
ssize_t write(int fd, const void *data, size_t size) { GUARD(fd); return NEXT(write)(fd, data, size); }
int ftruncate64(int fd, off64_t size) { GUARD(fd); return NEXT(ftruncate64)(fd, size); }
int ftruncate(int fd, off_t size) { GUARD(fd); return NEXT(ftruncate)(fd, size); }
int fallocate64(int fd, int mode, off64_t at, off64_t size) { GUARD(fd); return NEXT(fallocate64)(fd, mode, at, size); }
int posix_fallocate64(int fd, off64_t at, off64_t size) { int e = fault(fd); return e ? e : NEXT(posix_fallocate64)(fd, at, size); }
