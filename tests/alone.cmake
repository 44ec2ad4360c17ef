# Sources whose inner names clash with a neighbour's when a folder is compiled as one (ombrek_together): these of a
# folder are compiled with each other; below those that clash with these, too, each alone. Rename what clashes, and a
# file leaves its list.
set(OMBREK_APART
  book/book_test.cpp
  core/coil_test.cpp
  desk/entry_walk_test.cpp
  desk/frequency_walk_test.cpp
  desk/kit_page_walk_test.cpp
  desk/own_kit_walk_test.cpp
  desk/parts_walk_test.cpp
  desk/sign_off_walk_test.cpp
  desk/walk_test.cpp
  formats/kit_variants_test.cpp
  formats/trace_test.cpp
  lists/given_kind_test.cpp
  lists/limits_test.cpp
  lists/list_text_test.cpp
  lists/unseen_test.cpp
  reference/which_core_test.cpp
  reference/wire_test.cpp
  station/history_test.cpp
  station/sign_off_test.cpp
)
set(OMBREK_TESTS_ALONE
  cli/log_cli_test.cpp
  cli/network_cli_test.cpp
  cli/papers_test.cpp
  cli/parts_cli_test.cpp
  cli/plan_cli_test.cpp
  cli/proof_cli_test.cpp
  cli/safe_files_test.cpp
  cli/tune_cli_test.cpp
  station/sitting_test.cpp
  station/safety_test.cpp
  station/rests_on_test.cpp
  station/practice_kit_test.cpp
)
