#include "apsidon/files/write_file.hpp"

#include <fcntl.h>
#include <fmt/format.h>
#include <sys/stat.h>
#include <unistd.h>

#include <cerrno>
#include <csignal>
#include <string>
#include <system_error>

#include "apsidon/geometry/error.hpp"

namespace apsidon {
namespace {

[[noreturn]] void refuse(const std::filesystem::path& file, int reason) {
  throw Error(fmt::format("{}: the file cannot be written: {}", file.string(),
                          std::generic_category().message(reason)));
}

/// An open file, closed again.
class Descriptor {
 public:
  explicit Descriptor(int number) : number_(number) {}
  Descriptor(const Descriptor&) = delete;
  Descriptor& operator=(const Descriptor&) = delete;
  ~Descriptor() {
    if (number_ >= 0) ::close(number_);
  }
  [[nodiscard]] int number() const { return number_; }
  [[nodiscard]] bool open() const { return number_ >= 0; }

  /// Returns 0, or why not all was written.
  [[nodiscard]] int write(std::string_view bytes) const {
    while (!bytes.empty()) {
      const ssize_t written = ::write(number_, bytes.data(), bytes.size());
      if (written < 0 && errno == EINTR) continue;
      if (written < 0) return errno;
      bytes.remove_prefix(static_cast<std::size_t>(written));
    }
    return 0;
  }

 private:
  int number_;
};

/// Interrupts wait while it lives.
class Uninterrupted {
 public:
  Uninterrupted() {
    sigset_t all;
    sigfillset(&all);
    pthread_sigmask(SIG_SETMASK, &all, &before_);
  }
  Uninterrupted(const Uninterrupted&) = delete;
  Uninterrupted& operator=(const Uninterrupted&) = delete;
  ~Uninterrupted() { pthread_sigmask(SIG_SETMASK, &before_, nullptr); }

 private:
  sigset_t before_ = {};
};

/// What a file that takes the place of another has to be: with its permissions, and on the disk. Returns 0,
/// or why it could not. A new file has those that the process gives.
int settle(const Descriptor& written, const std::filesystem::path& file) {
  struct stat was {};
  if (::stat(file.c_str(), &was) == 0 && ::fchmod(written.number(), was.st_mode & 07777) != 0) return errno;
  return ::fsync(written.number()) == 0 ? 0 : errno;
}

/// Gives the bytes a name beside the file, and then the file's own. Returns 0, or why it could not.
int replace(const std::filesystem::path& file, const Descriptor& nameless, std::string_view bytes) {
  const std::string beside =
      (file.parent_path() / fmt::format(".{}.{}", file.filename().string(), ::getpid())).string();
  if (nameless.open()) {
    const std::string bytes_at = fmt::format("/proc/self/fd/{}", nameless.number());
    if (::linkat(AT_FDCWD, bytes_at.c_str(), AT_FDCWD, beside.c_str(), AT_SYMLINK_FOLLOW) != 0) return errno;
  } else {
    // Not every file system has files without a name.
    const Descriptor named(::open(beside.c_str(), O_WRONLY | O_CREAT | O_EXCL | O_CLOEXEC, 0666));
    int reason = named.open() ? named.write(bytes) : errno;
    if (reason == 0) reason = settle(named, file);
    if (reason != 0) {
      if (named.open()) ::unlink(beside.c_str());
      return reason;
    }
  }
  if (::rename(beside.c_str(), file.c_str()) == 0) return 0;
  const int reason = errno;
  ::unlink(beside.c_str());
  return reason;
}

}  // namespace

void write_file(const std::filesystem::path& name, std::string_view bytes) {
  std::error_code error;
  std::filesystem::path file = name;
  if (std::filesystem::is_symlink(name, error)) file = std::filesystem::weakly_canonical(name, error);
  const auto kind = std::filesystem::status(file, error).type();
  const bool there =
      kind != std::filesystem::file_type::not_found && kind != std::filesystem::file_type::none;
  if (kind == std::filesystem::file_type::directory) refuse(name, EISDIR);
  if (there && kind != std::filesystem::file_type::regular) {
    const Descriptor device(::open(file.c_str(), O_WRONLY | O_CLOEXEC));
    const int reason = device.open() ? device.write(bytes) : errno;
    if (reason != 0) refuse(name, reason);
    return;
  }
  // Who may not write to a file may not put another in its place either.
  if (there && ::access(file.c_str(), W_OK) != 0) refuse(name, errno);
  const std::filesystem::path folder = file.parent_path().empty() ? "." : file.parent_path();
  const Descriptor nameless(::open(folder.c_str(), O_TMPFILE | O_WRONLY | O_CLOEXEC, 0666));
  int reason = 0;
  if (nameless.open()) {
    reason = nameless.write(bytes);
    if (reason == 0) reason = settle(nameless, file);
  } else if (errno != EOPNOTSUPP && errno != EISDIR && errno != EINVAL) {
    reason = errno;
  }
  if (reason == 0) {
    const Uninterrupted until_it_has_its_name;
    reason = replace(file, nameless, bytes);
  }
  if (reason != 0) refuse(name, reason);
}

}  // namespace apsidon
