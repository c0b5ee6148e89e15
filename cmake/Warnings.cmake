# Warnings are errors for our own code; headers of packages come in as SYSTEM and stay silent.
add_library(yr_options INTERFACE)
# -Wrestrict is off: GCC 12 reports std::string operations that are sound (GCC bug 105651).
target_compile_options(yr_options INTERFACE -Wall -Wextra -Wpedantic -Wconversion -Wshadow -Werror
                                            $<$<CXX_COMPILER_ID:GNU>:-Wno-restrict>)
if(YR_SANITIZE)
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

# A layer of the house: a static library that sees only the layers named after LINKS. What a layer does not
# link it cannot include, because each layer's own headers are reached through its own include folder only.
function(yr_layer name)
  cmake_parse_arguments(ARG "" "" "SOURCES;LINKS;PRIVATE" ${ARGN})
  add_library(yr_${name} STATIC ${ARG_SOURCES})
  target_include_directories(yr_${name} PUBLIC $<BUILD_INTERFACE:${CMAKE_CURRENT_BINARY_DIR}/include/${name}>)
  # include as "units/wire_size.h": a link farm holds this layer's folder and no other
  file(MAKE_DIRECTORY ${CMAKE_CURRENT_BINARY_DIR}/include/${name})
  file(CREATE_LINK ${CMAKE_CURRENT_SOURCE_DIR}/${name} ${CMAKE_CURRENT_BINARY_DIR}/include/${name}/${name}
       SYMBOLIC)
  target_link_libraries(yr_${name} PUBLIC ${ARG_LINKS} PRIVATE yr_options ${ARG_PRIVATE})
endfunction()
