// One input of libFuzzer as text, and what must hold of it. A target is one file with one YR_FUZZ in it; the
// corpus it grows from is made of the shipped plans (tests/fuzz/run).
#pragma once

#include <algorithm>
#include <cstddef>
#include <cstdint>
#include <cstdlib>
#include <functional>
#include <random>
#include <string>

namespace yr::fuzz {

inline void require(bool holds) {
    if (!holds) std::abort();
}

// How many inputs are made of each that the fuzzer brings: where one takes a quarter of a millisecond,
// looking at what it reached takes as long again. YR_FUZZ_EACH=8: it and seven of its kind.
inline int inputs_of_each() {
    static const char* const said = std::getenv("YR_FUZZ_EACH");
    return said ? std::max(1, std::atoi(said)) : 1;
}

// Another of its kind: letters changed, left out, put in or said twice; the same ones in every run.
inline std::string another(std::string text, std::minstd_rand& random) {
    static const std::string likely = "0123456789.,;:-+/%@x \"'\n\tAWVmhkagofrt\xC2\xB2";
    const auto one_of = [&](std::size_t size) { return static_cast<std::size_t>(random()) % size; };
    for (std::size_t changes = 1 + one_of(4); changes > 0; --changes) {
        const std::size_t at = one_of(text.size() + 1);
        const char letter = one_of(4) == 0 ? static_cast<char>(one_of(256)) : likely[one_of(likely.size())];
        if (one_of(3) == 0 || at == text.size())
            text.insert(at, 1, letter);
        else if (one_of(3) == 0)
            text.erase(at, 1 + one_of(4));
        else if (one_of(3) == 0)
            text.insert(at, text.substr(one_of(text.size()), 1 + one_of(12)));
        else
            text[at] = letter;
    }
    return text;
}

}  // namespace yr::fuzz

#define YR_FUZZ(text)                                                                           \
    static void yr_fuzz_one(const std::string& text);                                           \
    extern "C" int LLVMFuzzerTestOneInput(const uint8_t* data, std::size_t size) {              \
        const std::string brought(reinterpret_cast<const char*>(data), size);                   \
        yr_fuzz_one(brought);                                                                   \
        std::minstd_rand random(static_cast<unsigned>(std::hash<std::string>()(brought)) | 1U); \
        for (int k = 1; k < yr::fuzz::inputs_of_each(); ++k)                                    \
            yr_fuzz_one(yr::fuzz::another(brought, random));                                    \
        return 0;                                                                               \
    }                                                                                           \
    static void yr_fuzz_one(const std::string& text)
