package nightreed.project;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import java.util.UUID;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * A small file beside an open project that says who has it open. SQLite's own locks are not enough: on POSIX systems they end
 * when the process closes any other handle of the file. What a dead process left behind is taken over.
 *
 * <p>It also keeps the marks that the project file may bear while a log of edits stands beside it: a log beside a file with
 * another mark belongs to another state of the project and must not be applied.
 *
 * <p>One line each: process, its start, machine, run of the machine, marks with spaces between.
 */
final class ProjectLock {
    private static final Logger LOG = LoggerFactory.getLogger(ProjectLock.class);
    private static final String ENDING = ".lock";
    private static final String NOBODY = "0";

    /** For so long an empty file may be one that is just being written; afterwards its writer has died over it. */
    private static final Duration BEING_WRITTEN = Duration.ofSeconds(10);

    private final Path file;
    private final Owner me;
    private Set<String> marks;

    private ProjectLock(Path file, Owner me, Set<String> marks) {
        this.file = file;
        this.me = me;
        this.marks = marks;
    }

    /**
     * A process on a machine.
     *
     * @param start   when it began, in the system's own count; empty if the system does not tell
     * @param machine its identity
     * @param boot    which run of the machine, empty if the system does not tell
     */
    private record Owner(String process, String start, String machine, String boot) {
        /** Of the fields of /proc/PID/stat after the name: the start in ticks since the machine began, which no set clock moves. */
        private static final int START_FIELD = 19;

        static Owner me() {
            long pid = ProcessHandle.current().pid();
            String machine = firstLine("/etc/machine-id");
            String named =
                    System.getenv().getOrDefault("COMPUTERNAME", System.getenv().getOrDefault("HOSTNAME", ""));
            return new Owner(
                    String.valueOf(pid),
                    start(pid),
                    machine.isEmpty() ? named : machine,
                    firstLine("/proc/sys/kernel/random/boot_id"));
        }

        private static String start(long pid) {
            String stat = firstLine("/proc/" + pid + "/stat");
            String[] field = stat.substring(stat.lastIndexOf(')') + 1).strip().split(" ");
            return field.length > START_FIELD ? field[START_FIELD] : "";
        }

        private static String firstLine(String file) {
            try {
                return Files.readAllLines(Path.of(file), StandardCharsets.ISO_8859_1)
                        .get(0)
                        .strip();
            } catch (IOException | RuntimeException e) {
                return "";
            }
        }

        /** Whether it is surely gone. On another machine nobody can tell from here. */
        boolean isGone(Owner me) {
            if (process.equals(NOBODY)) {
                return true;
            }
            if (!machine.equals(me.machine)) {
                return false;
            }
            if (!boot.equals(me.boot)) {
                return true;
            }
            long pid = Long.parseLong(process);
            boolean runs = ProcessHandle.of(pid).map(ProcessHandle::isAlive).orElse(false);
            return !runs || !start(pid).equals(start); // another process may have its number by now
        }
    }

    /** What stands in a lock file. */
    private record Content(Owner owner, Set<String> marks) {
        String text() {
            return owner.process + "\n" + owner.start + "\n" + owner.machine + "\n" + owner.boot + "\n"
                    + String.join(" ", marks) + "\n";
        }

        /** Null if the text is not whole. */
        static Content of(String text) {
            String[] line = text.split("\n", -1);
            if (line.length < 6 || !line[0].matches("\\d{1,18}")) {
                return null;
            }
            Set<String> marks =
                    line[4].isBlank() ? Set.of() : Set.of(line[4].strip().split(" "));
            return new Content(new Owner(line[0], line[1], line[2], line[3]), marks);
        }
    }

    /**
     * Takes a project for this process.
     *
     * @param project its real path
     * @throws UnusableProject if someone has it, or its folder cannot be written
     */
    static ProjectLock take(Path project) throws UnusableProject {
        Path file = project.resolveSibling(project.getFileName() + ENDING);
        Owner me = Owner.me();
        try {
            for (int tries = 0; tries < 20; tries++) {
                Set<String> marks = new TreeSet<>();
                if (Files.exists(file)) {
                    Content there = read(file);
                    refuseIfHeld(project, file, there, me);
                    if (!setAside(file, there)) {
                        continue; // someone was quicker
                    }
                    marks.addAll(there == null ? Set.of() : there.marks);
                }
                try {
                    String text = new Content(me, marks).text();
                    Files.writeString(file, text, StandardOpenOption.CREATE_NEW, StandardOpenOption.WRITE);
                    return new ProjectLock(file, me, marks);
                } catch (FileAlreadyExistsException quicker) {
                    LOG.debug("{} was taken in the same moment", project);
                }
            }
        } catch (IOException e) {
            throw new UnusableProject(
                    "The folder " + project.getParent()
                            + " cannot be written, and a project cannot be created or opened without writing beside"
                            + " itself: change the folder's permissions, free some space, or copy the project elsewhere.",
                    e);
        }
        throw heldElsewhere(project);
    }

    private static void refuseIfHeld(Path project, Path file, Content there, Owner me)
            throws UnusableProject, IOException {
        if (there == null) {
            Instant written = Files.getLastModifiedTime(file).toInstant();
            if (written.plus(BEING_WRITTEN).isAfter(Instant.now())) {
                throw heldElsewhere(project);
            }
            return;
        }
        if (there.owner.isGone(me)) {
            return;
        }
        if (!there.owner.machine.equals(me.machine)) {
            throw new UnusableProject(project.getFileName()
                    + " seems to be open on another machine: close it there. If nobody has it open, delete " + file
                    + ".");
        }
        throw heldElsewhere(project);
    }

    private static UnusableProject heldElsewhere(Path project) {
        return new UnusableProject(project.getFileName()
                + " is open in another window of Night Reed: go on there, or close it there first.");
    }

    private static Content read(Path file) throws IOException {
        try {
            return Content.of(Files.readString(file, StandardCharsets.UTF_8));
        } catch (NoSuchFileException | java.nio.charset.CharacterCodingException e) {
            return null;
        }
    }

    /** Moves what a dead process left out of the way: only one of several that try can do it. */
    private static boolean setAside(Path file, Content seen) throws IOException {
        Path aside = file.resolveSibling(file.getFileName() + "." + UUID.randomUUID());
        try {
            Files.move(file, aside, StandardCopyOption.ATOMIC_MOVE);
        } catch (NoSuchFileException gone) {
            return false;
        }
        Content moved = read(aside);
        boolean same = seen == null ? moved == null : seen.equals(moved);
        if (!same) { // between looking and moving someone else had taken it: give it back
            Files.move(aside, file, StandardCopyOption.ATOMIC_MOVE);
            return false;
        }
        Files.deleteIfExists(aside);
        return true;
    }

    /** Marks with which the log beside the project may be applied; empty if nothing is known. */
    Set<String> marks() {
        return marks;
    }

    /** From now on the log belongs to a file with one of these marks. */
    void expect(List<String> next) throws IOException {
        Set<String> now = new TreeSet<>(next);
        write(new Content(me, now));
        marks = now;
    }

    private void write(Content c) throws IOException {
        Path fresh = file.resolveSibling(file.getFileName() + ".new");
        Files.writeString(fresh, c.text());
        Files.move(fresh, file, StandardCopyOption.ATOMIC_MOVE, StandardCopyOption.REPLACE_EXISTING);
    }

    /** @param logStays whether a log is left beside the project, whose marks are needed to apply it */
    void release(boolean logStays) {
        try {
            if (logStays) {
                write(new Content(new Owner(NOBODY, "", me.machine, me.boot), marks));
            } else {
                Files.deleteIfExists(file);
            }
        } catch (IOException e) {
            // the next who opens it sees that this process is gone
            LOG.warn("releasing {}", file, e);
        }
    }

    /** Files that may stand beside a project. */
    static List<Path> beside(Path project) {
        List<Path> out = new ArrayList<>();
        for (String ending : List.of("-wal", "-shm", "-journal")) {
            out.add(project.resolveSibling(project.getFileName() + ending));
        }
        return out;
    }
}
