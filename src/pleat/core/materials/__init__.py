"""What a maker owns: papers, boards, cloths, threads and the rest, how thick it is, and what it is good
for."""
