// Pieces of work that do not hang on each other, as many at once as the machine has threads.
#pragma once

#include <atomic>
#include <cstddef>
#include <functional>

namespace yr {

// work(0) … work(count - 1), each once, in no order; `done(share)` in the caller's thread after each of its
// own. Once *stop is set none is begun any more. An exception of a piece reaches the caller, after what
// others had begun has ended; none is begun after it. A piece may itself ask for pieces at once: the threads
// are those of one pool, and who asks works along, so that nobody waits for a thread.
void at_once(std::size_t count, const std::function<void(std::size_t)>& work,
             const std::atomic<bool>* stop = nullptr, const std::function<void(double)>& progress = nullptr);

}  // namespace yr
