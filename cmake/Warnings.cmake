# Warnings are errors for our own code; headers of packages come in as SYSTEM and stay silent.
add_library(yr_options INTERFACE)
# -Wrestrict is off: GCC 12 reports std::string operations that are sound (GCC bug 105651).
target_compile_options(yr_options INTERFACE -Wall -Wextra -Wpedantic -Wconversion -Wshadow -Werror
                                            $<$<CXX_COMPILER_ID:GNU>:-Wno-restrict>)
# What only GCC takes and clang-tidy, which reads the same commands, does not: 400 MB may be kept of what is no longer
# needed before GCC tidies up (4 % of a build), and no passes between functions where nothing is computed.
set(YR_GCC_SAVES_MEMORY "")
set(YR_GCC_FEWER_PASSES "")
if(CMAKE_CXX_COMPILER_ID STREQUAL "GNU" AND NOT CMAKE_DISABLE_PRECOMPILE_HEADERS)
  set(YR_GCC_SAVES_MEMORY "SHELL:--param ggc-min-heapsize=400000")
  set(YR_GCC_FEWER_PASSES -fno-ipa-modref -fno-ipa-icf -fno-ipa-sra -fno-ipa-cp -fno-ipa-ra)
endif()
target_compile_options(yr_options INTERFACE ${YR_GCC_SAVES_MEMORY})
# What a macro knows of its file is the place in this tree: so a compiler cache knows one clone's objects in another.
target_compile_options(yr_options INTERFACE -fmacro-prefix-map=${CMAKE_SOURCE_DIR}/=)
# Sanitizers are clang's: it compiles what they look at in two thirds of GCC's time, and the fuzzers, which are its own,
# link the same libraries. GCC's warnings are the ones that count.
if(YR_SANITIZE STREQUAL "threads")
  set(sanitizers thread)
elseif(YR_SANITIZE STREQUAL "fuzz")  # inputs by the million; what they reach is looked at with the sanitizers afterwards
  target_compile_options(yr_options INTERFACE -fsanitize-coverage=inline-8bit-counters,pc-table -D_GLIBCXX_ASSERTIONS -Wno-error -Wno-everything)
elseif(YR_SANITIZE)
  set(sanitizers address,undefined)
  target_compile_options(yr_options INTERFACE -fsanitize=fuzzer-no-link -fno-sanitize-recover=all)
endif()
if(sanitizers)
  target_compile_options(yr_options INTERFACE -fsanitize=${sanitizers} -fno-omit-frame-pointer -Wno-error -Wno-everything)
  target_link_options(yr_options INTERFACE -fsanitize=${sanitizers})
endif()
if(YR_COVERAGE)
  target_compile_options(yr_options INTERFACE --coverage)
  target_link_options(yr_options INTERFACE --coverage)
endif()

# What only words, windows and commands do is not worth a long optimisation: what they wait for is computed in the
# core. It halves the time of a build.
add_library(yr_keen INTERFACE)
target_compile_options(yr_keen INTERFACE $<$<CONFIG:Release>:-O3>)
add_library(yr_light INTERFACE)
target_compile_options(yr_light INTERFACE $<$<CONFIG:Release>:-O1>)
if(CMAKE_BUILD_TYPE STREQUAL "Release")
  target_compile_options(yr_light INTERFACE ${YR_GCC_FEWER_PASSES})
endif()
# Tests are compiled without any: see yr_optimised_first.
add_library(yr_plain INTERFACE)
target_compile_options(yr_plain INTERFACE $<$<CONFIG:Release>:-O0>)
if(YR_SANITIZE)  # what they look for is in the rooms
  target_compile_options(yr_plain INTERFACE -O0 -fno-sanitize=undefined)
  target_compile_options(yr_keen INTERFACE -O2)  # clang's -O1 inlines nothing: Eigen was most of a test's time
endif()
