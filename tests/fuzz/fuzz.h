// One input of libFuzzer as text, and what must hold of it. A target is one file with one YR_FUZZ in it; the
// corpus it grows from is made of the shipped plans (tests/fuzz/run).
#pragma once

#include <cstddef>
#include <cstdint>
#include <cstdlib>
#include <string>

namespace yr::fuzz {

inline void require(bool holds) {
    if (!holds) std::abort();
}

}  // namespace yr::fuzz

#define YR_FUZZ(text)                                                              \
    static void yr_fuzz_one(const std::string& text);                              \
    extern "C" int LLVMFuzzerTestOneInput(const uint8_t* data, std::size_t size) { \
        yr_fuzz_one(std::string(reinterpret_cast<const char*>(data), size));       \
        return 0;                                                                  \
    }                                                                              \
    static void yr_fuzz_one(const std::string& text)
