#include "files/text_file.h"

#include <fcntl.h>
#include <sys/stat.h>
#include <unistd.h>

#include <algorithm>
#include <array>
#include <cerrno>
#include <cstring>
#include <filesystem>
#include <vector>

namespace yr {
namespace {

namespace fs = std::filesystem;

constexpr int kMostLinks = 40;
WriteFault g_fault = nullptr;

bool fails(WriteStep step) {
    if (!g_fault || !g_fault(step)) return false;
    errno = EIO;
    return true;
}

// Closes, and removes what is not finished.
class Part {
  public:
    Part(int fd, std::string path) : fd_(fd), path_(std::move(path)) {}
    ~Part() {
        if (fd_ >= 0) ::close(fd_);
        if (!path_.empty()) ::unlink(path_.c_str());
    }
    Part(const Part&) = delete;
    Part& operator=(const Part&) = delete;
    [[nodiscard]] int fd() const { return fd_; }
    [[nodiscard]] bool close() {
        const int fd = fd_;
        fd_ = -1;
        return ::close(fd) == 0;
    }
    void keep() { path_.clear(); }

  private:
    int fd_;
    std::string path_;
};

// Where the text shall go: through symbolic links, also one whose target is not there yet.
std::string target_of(const std::string& path) {
    fs::path at = path;
    std::error_code error;
    for (int k = 0; k < kMostLinks && fs::is_symlink(fs::symlink_status(at, error)); ++k) {
        const fs::path to = fs::read_symlink(at, error);
        if (error) break;
        at = to.is_absolute() ? to : at.parent_path() / to;
    }
    return at.string();
}

bool write_all(int fd, std::string_view text) {
    while (!text.empty()) {
        if (fails(WriteStep::write)) return false;
        const ssize_t done = ::write(fd, text.data(), text.size());
        if (done < 0 && errno == EINTR) continue;
        if (done <= 0) return false;
        text.remove_prefix(static_cast<std::size_t>(done));
    }
    return true;
}

mode_t usual_mode() {
    const mode_t mask = ::umask(0);
    ::umask(mask);
    return 0666 & ~mask;
}

void flush_folder(const fs::path& folder) {
    const int fd = ::open(folder.c_str(), O_RDONLY | O_DIRECTORY | O_CLOEXEC);
    if (fd < 0) return;  // the file itself is on the disk
    (void)::fsync(fd);
    ::close(fd);
}

tl::unexpected<Error> unwritable(const std::string& path) {
    return fail(ErrorCode::unwritable_file, path, std::strerror(errno));
}

}  // namespace

void fail_writes_for_test(WriteFault fault) {
    g_fault = fault;
}

Result<std::string> read_text_file(const std::string& path, std::size_t most_bytes) {
    const int fd = ::open(path.c_str(), O_RDONLY | O_NONBLOCK | O_CLOEXEC);  // a pipe shall not block
    if (fd < 0) return fail(ErrorCode::unreadable_file, path, std::strerror(errno));
    const Part guard(fd, {});
    struct stat about {};
    if (::fstat(fd, &about) != 0) return fail(ErrorCode::unreadable_file, path, std::strerror(errno));
    // a pipe such as /dev/stdin is read to its end; a folder or disk is no file
    if (!S_ISREG(about.st_mode) && !S_ISFIFO(about.st_mode) && !S_ISCHR(about.st_mode))
        return fail(ErrorCode::not_a_file, path);
    if (S_ISREG(about.st_mode) && static_cast<std::size_t>(about.st_size) > most_bytes)
        return fail(ErrorCode::too_large, path, {},
                    {Want::as_said, std::to_string(most_bytes >> 20) + " MB"});
    (void)::fcntl(fd, F_SETFL, 0);
    std::string text;
    if (S_ISREG(about.st_mode)) text.reserve(static_cast<std::size_t>(about.st_size));
    std::array<char, 1 << 16> block{};
    while (true) {
        const ssize_t got = ::read(fd, block.data(), block.size());
        if (got < 0 && errno == EINTR) continue;
        if (got < 0) return fail(ErrorCode::unreadable_file, path, std::strerror(errno));
        if (got == 0) break;
        text.append(block.data(), static_cast<std::size_t>(got));
        if (text.size() > most_bytes)
            return fail(ErrorCode::too_large, path, {},
                        {Want::as_said, std::to_string(most_bytes >> 20) + " MB"});
    }
    if (text.starts_with("\xFF\xFE") || text.starts_with("\xFE\xFF") || text.find('\0') != std::string::npos)
        return fail(ErrorCode::not_utf8, path);
    if (text.starts_with("\xEF\xBB\xBF")) text.erase(0, 3);
    return text;
}

Result<bool> write_text_file(const std::string& path, std::string_view text, Overwrite overwrite) {
    const std::string target = target_of(path);
    struct stat before {};
    const bool there = ::stat(target.c_str(), &before) == 0;
    if (there && !S_ISREG(before.st_mode)) return fail(ErrorCode::not_a_file, path);
    if (there && overwrite == Overwrite::no) return fail(ErrorCode::file_exists, path);
    if (there && ::access(target.c_str(), W_OK) != 0) return unwritable(path);
    const fs::path folder = fs::path(target).has_parent_path() ? fs::path(target).parent_path() : ".";
    std::string name =
        (folder / ("." + fs::path(target).filename().string().substr(0, 80) + ".XXXXXX")).string();
    if (fails(WriteStep::create)) return unwritable(path);
    const int fd = ::mkostemp(name.data(), O_CLOEXEC);
    if (fd < 0) return unwritable(path);
    Part part(fd, name);
    if (!write_all(fd, text)) return unwritable(path);
    if (fails(WriteStep::mode) || ::fchmod(fd, there ? before.st_mode & 07777 : usual_mode()) != 0)
        return unwritable(path);
    if (there && (before.st_uid != ::geteuid() || before.st_gid != ::getegid()))
        if (::fchown(fd, before.st_uid, before.st_gid) != 0) errno = 0;  // not ours to give; the text counts
    if (fails(WriteStep::flush) || ::fsync(fd) != 0) return unwritable(path);
    if (fails(WriteStep::close) || !part.close()) return unwritable(path);
    if (fails(WriteStep::rename) || ::rename(name.c_str(), target.c_str()) != 0) return unwritable(path);
    part.keep();
    flush_folder(folder);
    return true;
}

}  // namespace yr
