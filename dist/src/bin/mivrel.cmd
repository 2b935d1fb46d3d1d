@echo off
rem Starts mivrel with the runtime that lies beside it, or else with Java from 17 on.
setlocal
set "home=%~dp0.."
if exist "%home%\runtime\bin\java.exe" (
  set "java=%home%\runtime\bin\java.exe"
) else if defined JAVA_HOME (
  set "java=%JAVA_HOME%\bin\java.exe"
) else (
  set "java=java"
)
"%java%" --enable-native-access=ALL-UNNAMED -Xmx256m -XX:+UseParallelGC %MIVREL_JAVA_OPTIONS% -cp "%home%\lib\*" io.mivrel.cli.Main %*
exit /b %ERRORLEVEL%
