/*
 * The two kernels of the voices in C, for comparison: the mode bank (a rotating complex number for each mode, four at once,
 * with a gliding gain) and the string loop (delay line, Thiran's all-pass of third order, one-pole loss). The same steps of
 * 64 samples, the same arithmetic in double, the same output in double.
 *
 *   gcc -O3 -march=native -o kernels kernels.c -lm
 *   kernels modes|string SECONDS    prints nanoseconds per sample
 */
#include <math.h>
#include <stdio.h>
#include <stdlib.h>
#include <string.h>
#include <time.h>

#define STEP 64
#define MODES 64
#define MASK 16383

static double now(void) {
    struct timespec t;
    clock_gettime(CLOCK_MONOTONIC, &t);
    return t.tv_sec + 1e-9 * t.tv_nsec;
}

static double re[MODES], im[MODES], zr[MODES], zi[MODES], gain[MODES], slope[MODES];

static void four(int i, double *out, int n) {
    double r0 = re[i], r1 = re[i + 1], r2 = re[i + 2], r3 = re[i + 3];
    double m0 = im[i], m1 = im[i + 1], m2 = im[i + 2], m3 = im[i + 3];
    const double a0 = zr[i], a1 = zr[i + 1], a2 = zr[i + 2], a3 = zr[i + 3];
    const double b0 = zi[i], b1 = zi[i + 1], b2 = zi[i + 2], b3 = zi[i + 3];
    double g0 = gain[i], g1 = gain[i + 1], g2 = gain[i + 2], g3 = gain[i + 3];
    const double d0 = slope[i], d1 = slope[i + 1], d2 = slope[i + 2], d3 = slope[i + 3];
    for (int t = 0; t < n; t++) {
        double x0 = a0 * r0 - b0 * m0;
        double x1 = a1 * r1 - b1 * m1;
        double x2 = a2 * r2 - b2 * m2;
        double x3 = a3 * r3 - b3 * m3;
        m0 = a0 * m0 + b0 * r0;
        m1 = a1 * m1 + b1 * r1;
        m2 = a2 * m2 + b2 * r2;
        m3 = a3 * m3 + b3 * r3;
        r0 = x0;
        r1 = x1;
        r2 = x2;
        r3 = x3;
        out[t] += g0 * x0 + g1 * x1 + (g2 * x2 + g3 * x3);
        g0 += d0;
        g1 += d1;
        g2 += d2;
        g3 += d3;
    }
    re[i] = r0; re[i + 1] = r1; re[i + 2] = r2; re[i + 3] = r3;
    im[i] = m0; im[i + 1] = m1; im[i + 2] = m2; im[i + 3] = m3;
    gain[i] = g0; gain[i + 1] = g1; gain[i + 2] = g2; gain[i + 3] = g3;
}

static double modes(long samples) {
    double out[STEP], sum = 0;
    for (int i = 0; i < MODES; i++) {
        double r = pow(10, -3 / (30.0 * 48000)), w = 2 * M_PI * 110 * (1 + 0.37 * i) / 48000;
        re[i] = 0.01;
        zr[i] = r * cos(w);
        zi[i] = r * sin(w);
        gain[i] = 1;
    }
    double start = now();
    for (long s = 0; s < samples; s += STEP) {
        memset(out, 0, sizeof out);
        for (int i = 0; i < MODES; i += 4) {
            four(i, out, STEP);
        }
        sum += out[STEP - 1];
    }
    double took = now() - start;
    fprintf(stderr, "%g\n", sum);
    return took;
}

static double line[MASK + 1];

static double string(long samples) {
    double out[STEP], sum = 0;
    int at = 0, whole = 430;
    double t1 = 0.02, t2 = -0.003, t3 = 0.0004, s1 = 0, s2 = 0, s3 = 0;
    double b0 = 0.98, a1 = -0.02, loss = 0, gain = 0.9995, extra = 1, extra_step = 0, amplitude = 1, amplitude_step = 0;
    for (int i = 0; i < 430; i++) {
        line[i] = sin(i * 0.3);
    }
    at = 430;
    double start = now();
    for (long s = 0; s < samples; s += STEP) {
        memset(out, 0, sizeof out);
        for (int t = 0; t < STEP; t++) {
            double x = line[(at - whole) & MASK];
            double y = t3 * x + s1;
            s1 = t2 * x - t1 * y + s2;
            s2 = t1 * x - t2 * y + s3;
            s3 = x - t3 * y;
            double v = b0 * y + loss;
            loss = -a1 * v;
            y = v * gain * extra;
            line[at] = y;
            at = (at + 1) & MASK;
            extra += extra_step;
            out[t] += y * amplitude;
            amplitude += amplitude_step;
        }
        sum += out[STEP - 1];
    }
    double took = now() - start;
    fprintf(stderr, "%g\n", sum);
    return took;
}

int main(int count, char **word) {
    if (count < 3) {
        fprintf(stderr, "kernels modes|string SECONDS\n");
        return 2;
    }
    long samples = (long) (atof(word[2]) * 48000);
    double took = strcmp(word[1], "modes") ? string(samples) : modes(samples);
    printf("%.4f\n", 1e9 * took / samples);
    return 0;
}
