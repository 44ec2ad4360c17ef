# Completion of ombrek-cli for bash: commands first, then files.
_ombrek_cli() {
  local commands="sum coil trimmer turns mark match substitute list checks steps rebuild expect suspects peak null reference crystals dial spectrum power network coupler plan kit log distance report practice rescue"
  local word=${COMP_WORDS[COMP_CWORD]}
  if [ "$COMP_CWORD" -eq 1 ]; then
    mapfile -t COMPREPLY < <(compgen -W "$commands --help" -- "$word")
  elif [ "${COMP_WORDS[1]}" = kit ] && [ "$COMP_CWORD" -eq 2 ]; then
    mapfile -t COMPREPLY < <(compgen -W "$(ombrek-cli kit --help 2>/dev/null | awk '/^Subcommands/ {on = 1; next} on && NF {print $1}')" -- "$word")
  elif [[ $word == -* ]]; then
    mapfile -t COMPREPLY < <(compgen -W "$(ombrek-cli "${COMP_WORDS[1]}" --help 2>/dev/null | grep -oE -- '--[a-z-]+')" -- "$word")
  else
    mapfile -t COMPREPLY < <(compgen -f -- "$word")
  fi
}
complete -o filenames -F _ombrek_cli ombrek-cli
