# Warnings are errors for our own code; headers of packages come in as SYSTEM and stay silent.
add_library(yr_options INTERFACE)
# -Wrestrict is off: GCC 12 reports std::string operations that are sound (GCC bug 105651).
target_compile_options(yr_options INTERFACE -Wall -Wextra -Wpedantic -Wconversion -Wshadow -Werror
                                            $<$<CXX_COMPILER_ID:GNU>:-Wno-restrict>)
# GCC may keep 400 MB of what it no longer needs before it tidies up: 4 % of a build.
target_compile_options(yr_options INTERFACE $<$<CXX_COMPILER_ID:GNU>:SHELL:--param ggc-min-heapsize=400000>)
if(YR_SANITIZE STREQUAL "threads")
  target_compile_options(yr_options INTERFACE -fsanitize=thread -fno-omit-frame-pointer)
  target_link_options(yr_options INTERFACE -fsanitize=thread)
elseif(YR_SANITIZE STREQUAL "fuzz")
  # clang's libFuzzer beside the address and undefined-behaviour sanitizers; GCC's warnings are the ones that count
  target_compile_options(yr_options INTERFACE -fsanitize=fuzzer-no-link,address,undefined -fno-sanitize-recover=all -Wno-error
                                              -Wno-everything)
  target_link_options(yr_options INTERFACE -fsanitize=address,undefined)
elseif(YR_SANITIZE)
  target_compile_options(yr_options INTERFACE -fsanitize=address,undefined -fno-omit-frame-pointer
                                              -fno-sanitize-recover=all)
  # GCC 12 sees uninitialised values in its own <regex> when it instruments (GCC bug 105562).
  target_compile_options(yr_options INTERFACE -Wno-maybe-uninitialized)
  target_link_options(yr_options INTERFACE -fsanitize=address,undefined)
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
target_compile_options(yr_light INTERFACE $<$<CONFIG:Release>:-O1> $<$<AND:$<CONFIG:Release>,$<CXX_COMPILER_ID:GNU>>:-fno-ipa-modref;-fno-ipa-icf;-fno-ipa-sra;-fno-ipa-cp;-fno-ipa-ra>)
# Tests are compiled without any: see yr_optimised_first.
add_library(yr_plain INTERFACE)
target_compile_options(yr_plain INTERFACE $<$<CONFIG:Release>:-O0>)
