# Ships text files inside a library: the file in the tree stays the one source, the binary needs no install path.
#   yr_embed_text(TARGET NAMESPACE file...)  ->  <target>_embedded.h: std::string_view text(std::string_view file_name)
function(yr_embed_text target out_cpp)
  set(inputs)
  foreach(f ${ARGN})
    get_filename_component(abs ${f} ABSOLUTE)
    list(APPEND inputs ${abs})
  endforeach()
  string(REPLACE ";" "," joined "${inputs}")
  add_custom_command(
    OUTPUT ${out_cpp}
    COMMAND ${CMAKE_COMMAND} -DOUT=${out_cpp} -DTARGET=${target} "-DINPUTS=${joined}"
            -P ${CMAKE_SOURCE_DIR}/cmake/embed_text_script.cmake
    DEPENDS ${inputs} ${CMAKE_SOURCE_DIR}/cmake/embed_text_script.cmake
    VERBATIM)
endfunction()
