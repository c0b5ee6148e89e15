# A layer of the house: a library that sees only the layers named after LINKS. What a layer does not link it
# cannot include, because each layer's own headers are reached through an include folder of its own, a farm of
# links that holds this layer's folder and no other: "units/wire_size.h" is found there alone.
#
#   yr_layer(units SOURCES units/quantity.cpp LINKS tl::expected PRIVATE ...)
#   yr_layer(workspace_rail FOLDER workspaces/rail SOURCES ... LINKS yr_workspace)

function(yr_farm target scope)
  set(farm ${CMAKE_CURRENT_BINARY_DIR}/include/${target})
  foreach(entry ${ARGN})
    get_filename_component(holder ${entry} DIRECTORY)
    file(MAKE_DIRECTORY ${farm}/${holder})
    file(CREATE_LINK ${CMAKE_CURRENT_SOURCE_DIR}/${entry} ${farm}/${entry} SYMBOLIC)
  endforeach()
  target_include_directories(${target} ${scope} $<BUILD_INTERFACE:${farm}>)
endfunction()

function(yr_layer name)
  cmake_parse_arguments(ARG "HEADERS_ONLY" "FOLDER" "SOURCES;LINKS;PRIVATE" ${ARGN})
  if(NOT ARG_FOLDER)
    set(ARG_FOLDER ${name})
  endif()
  if(ARG_HEADERS_ONLY)
    add_library(yr_${name} INTERFACE)
    target_link_libraries(yr_${name} INTERFACE ${ARG_LINKS})
    yr_farm(yr_${name} INTERFACE ${ARG_FOLDER})
  else()
    add_library(yr_${name} STATIC ${ARG_SOURCES})
    target_link_libraries(yr_${name} PUBLIC ${ARG_LINKS} PRIVATE yr_options ${ARG_PRIVATE})
    yr_few_together(yr_${name} 20)
    set_property(DIRECTORY APPEND PROPERTY YR_LAYERS yr_${name})
    yr_farm(yr_${name} PUBLIC ${ARG_FOLDER})
  endif()
endfunction()

# Headers that nearly every file of some targets includes, compiled once for all of them. Those targets must be
# compiled with the same options: yr_share_headers(core HEADERS ... LINKS ...), then yr_use_headers(core target...)
function(yr_share_headers name)
  cmake_parse_arguments(ARG "" "" "HEADERS;LINKS" ${ARGN})
  add_library(yr_headers_${name} OBJECT ${CMAKE_SOURCE_DIR}/cmake/shared_headers.cpp)
  target_link_libraries(yr_headers_${name} PRIVATE yr_options ${ARG_LINKS})
  target_precompile_headers(yr_headers_${name} PRIVATE ${ARG_HEADERS})
endfunction()
function(yr_use_headers name)
  foreach(target ${ARGN})
    target_precompile_headers(${target} REUSE_FROM yr_headers_${name})
  endforeach()
endfunction()

# The standard headers of nearly every file.
set(YR_COMMON_HEADERS <algorithm> <cmath> <functional> <map> <memory> <optional> <string> <string_view>
                      <unordered_map> <variant> <vector> <tl/expected.hpp>)

# Those of nearly every window. Qt's own headers of a whole module take three times as long to read.
set(YR_QT_HEADERS <QApplication> <QBoxLayout> <QComboBox> <QDialog> <QHeaderView> <QKeyEvent> <QLabel> <QLineEdit> <QMenu>
                  <QPainter> <QPushButton> <QScrollArea> <QTimer> <QToolButton> <QTreeWidget>)

# Compiles so many sources of a target as one: a plan's headers are read, and what copies and destroys a plan is
# compiled, once for all of them; from nothing everything is built in a third of the time. Names in unnamed namespaces
# must then differ within a room (a file that cannot stand beside the others says SKIP_UNITY_BUILD_INCLUSION). Who
# changes one file often configures with -DYR_TOGETHER=OFF.
function(yr_few_together target count)
  if(YR_TOGETHER)
    set_target_properties(${target} PROPERTIES UNITY_BUILD ON UNITY_BUILD_BATCH_SIZE ${count})
    # a class of a room may hold what its own file alone knows
    target_compile_options(${target} PRIVATE $<$<CXX_COMPILER_ID:GNU>:-Wno-subobject-linkage>)
  endif()
endfunction()

# Of an inline function that several files compiled the linker takes the first copy that it sees. A program whose own
# files are not optimised links the libraries whole and before them, so that theirs are taken: without it a test program
# ran the plan's copies at half their speed.
function(yr_optimised_first target)
  set(files "")
  foreach(folder ${ARGN})
    get_property(layers DIRECTORY ${CMAKE_SOURCE_DIR}/${folder} PROPERTY YR_LAYERS)
    foreach(layer ${layers})
      list(APPEND files $<TARGET_FILE:${layer}>)
    endforeach()
  endforeach()
  target_link_options(${target} PRIVATE LINKER:--whole-archive ${files} LINKER:--no-whole-archive)
endfunction()
